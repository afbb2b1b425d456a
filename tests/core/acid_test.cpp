#include "formula/formula_answer.h"
#include "solution/acid_dose.h"
#include "support/shelf_builder.h"
#include "water/water_solutes.h"

#include <cmath>
#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;

namespace {

Water hardWell() {
  WaterReport report;
  report.milligramsPerLitre = {{"Ca", 78},  {"Mg", 14},  {"Na", 23},   {"Cl", 34},
                               {"SO4", 41}, {"NO3", 12}, {"HCO3", 248}};
  report.ph = 7.8;
  return *normaliseWater(report);
}

Titrated asTitrated(const Water& water) {
  return titrated(mix(water, {}, {}, test::litres(1)));
}

Solutes perGram(const char* formula, double percent = 100) {
  return test::salt(formula, percent).composition.solutesPerGram;
}

double phAfter(const Titrated& water, const Solutes& acid, double grams) {
  const auto state = withDose(water, acid, grams);
  EXPECT_TRUE(state);
  return state ? state->ph : 0;
}

} // namespace

TEST(AcidDose, EveryAcidAndBaseOfTheCatalogueBringsTheWaterWhereItShould) {
  const auto water = asTitrated(hardWell());
  for (const char* acid : {"HNO3", "H3PO4", "H2SO4", "HCl", "C6H8O7", "C2H4O2"}) {
    const auto dose = doseToReach(water, perGram(acid), 5.8);
    ASSERT_TRUE(dose) << acid;
    EXPECT_NEAR(phAfter(water, perGram(acid), dose->gramsPerLitre), 5.8, 1e-5) << acid;
    EXPECT_NEAR(dose->equivalentsPerLitre + dose->alkalinityLeftEqPerLitre, water.perLitre.alkalinityEq,
                1e-12);
  }
  for (const char* base : {"KOH", "K2CO3", "KHCO3", "NaHCO3"}) {
    const double target = std::string(base) == "KHCO3" || std::string(base) == "NaHCO3" ? 7.9 : 8.6;
    const auto dose = doseToReach(water, perGram(base), target);
    ASSERT_TRUE(dose) << base;
    EXPECT_LT(dose->equivalentsPerLitre, 0) << base;
    EXPECT_NEAR(phAfter(water, perGram(base), dose->gramsPerLitre), target, 1e-5) << base;
  }
}

// Reference equivalents up to pH 5.8 at ionic strength 0, from the pKa (CRC Handbook, from memory):
// phosphoric 1.037, citric 2.120, acetic 0.917. Citrate held by calcium lets go of more.
TEST(AcidDose, WeakAcidsGiveTheEquivalentsOfTheirPka) {
  const auto thin = asTitrated(test::waterOf({{"Na", 4.6}, {"HCO3", 12.2}}));
  const auto equivalents = [&](const char* acid, double molarMass) {
    const auto dose = doseToReach(thin, perGram(acid), 5.8);
    EXPECT_TRUE(dose) << acid;
    return dose->equivalentsPerLitre / (dose->gramsPerLitre / molarMass);
  };
  EXPECT_NEAR(equivalents("H3PO4", 97.994), 1.037, 0.005);
  EXPECT_NEAR(equivalents("C6H8O7", 192.12), 2.120, 0.03);
  EXPECT_NEAR(equivalents("C2H4O2", 60.052), 0.917, 0.005);
  EXPECT_NEAR(equivalents("HNO3", 63.012), 1, 1e-9);
  EXPECT_NEAR(equivalents("H2SO4", 98.07), 2, 1e-3);
}

// The pairs of calcium and magnesium with citrate: without them a citric dose in hard water is wrong by a
// quarter.
TEST(AcidDose, HardWaterMakesCitricAcidStrongerSoftWaterDoesNot) {
  const auto hard = asTitrated(hardWell());
  WaterReport report;
  report.milligramsPerLitre = {{"Na", 140}, {"Cl", 70}, {"HCO3", 248}};
  report.ph = 7.8;
  const auto soft = asTitrated(*normaliseWater(report));
  const double inHard = doseToReach(hard, perGram("C6H8O7"), 5.8)->gramsPerLitre;
  const double inSoft = doseToReach(soft, perGram("C6H8O7"), 5.8)->gramsPerLitre;
  EXPECT_NEAR(inHard / inSoft, 0.77, 0.04);
}

// Common practice: pure water needs next to no acid, a hard well a lot.
TEST(AcidDose, PureWaterNeedsAlmostNoneAHardWellALot) {
  const auto acid = perGram("HNO3", 60);
  const auto well = doseToReach(asTitrated(hardWell()), acid, 5.8);
  const auto pure = doseToReach(asTitrated(pureWater()), acid, 5.8);
  ASSERT_TRUE(well && pure);
  EXPECT_GT(well->gramsPerLitre, 500 * pure->gramsPerLitre);
  EXPECT_NEAR(well->equivalentsPerLitre, 3.1e-3, 0.2e-3);
}

TEST(AcidDose, OpenToTheAirNearlyAllOfTheAlkalinityMustGo) {
  auto water = asTitrated(hardWell());
  const auto acid = perGram("HNO3", 60);
  const double closed = doseToReach(water, acid, 5.8)->equivalentsPerLitre;
  water.conditions.carbonDioxideAtm = airCarbonDioxideAtm;
  const auto open = doseToReach(water, acid, 5.8);
  EXPECT_GT(open->equivalentsPerLitre, 1.25 * closed);
  EXPECT_LT(open->alkalinityLeftEqPerLitre, 1e-5);
}

TEST(AcidDose, TheWrongWayOrOutOfReachIsSaidNotGuessed) {
  const auto water = asTitrated(hardWell());
  EXPECT_EQ(doseToReach(water, perGram("KOH"), 5.8).problem().code, ProblemCode::CannotReach);
  EXPECT_EQ(doseToReach(water, perGram("HNO3"), 9).problem().code, ProblemCode::CannotReach);
  EXPECT_EQ(doseToReach(water, perGram("C2H4O2", 5), 2).problem().code, ProblemCode::CannotReach);
  EXPECT_EQ(doseToReach(water, perGram("KNO3"), 6).problem().code, ProblemCode::CannotReach);
}

TEST(AcidDose, TheBufferIsTheSlopeOfTheCurve) {
  const auto water = asTitrated(hardWell());
  const auto acid = perGram("HNO3");
  const auto dose = doseToReach(water, acid, 6.3);
  const double more = 1e-5 * 63.012; // 0.01 meq/L
  const double slope = 1e-5 / (6.3 - phAfter(water, acid, dose->gramsPerLitre + more));
  EXPECT_NEAR(dose->bufferEqPerLitre, slope, 0.02 * slope);
}

TEST(AcidDose, TheBufferInGramsHoldsForWeakAcidsToo) {
  const auto water = asTitrated(hardWell());
  for (const char* acid : {"HNO3", "C2H4O2", "C6H8O7", "H3PO4"}) {
    const auto dose = doseToReach(water, perGram(acid), 6.3);
    const double more = 0.02 * dose->gramsPerLitrePerPh;
    EXPECT_NEAR(phAfter(water, perGram(acid), dose->gramsPerLitre + more), 6.28, 0.002) << acid;
  }
}

TEST(AcidDose, TheCurveFallsFirstSlowlyThenSteeply) {
  const auto curve = titrationCurve(asTitrated(hardWell()), perGram("HNO3"), 0.28, 60);
  ASSERT_EQ(curve.size(), 60u);
  for (std::size_t i = 1; i < curve.size(); ++i)
    EXPECT_LT(curve[i].ph, curve[i - 1].ph);
  EXPECT_NEAR(curve.front().ph, 7.8, 0.1);
  EXPECT_LT(curve.back().ph, 4);
}

TEST(WaterSolutes, ThePhThatWasReadComesOutAgain) {
  for (const double ph : {6.6, 7.2, 8.1, 8.9}) {
    auto water = hardWell();
    water.ph = ph;
    water.temperatureCelsius = 25;
    EXPECT_NEAR(*mix(water, {}, {}, test::litres(1)).ph, ph, 0.002) << ph;
  }
}

TEST(WaterSolutes, APhThatCannotBeIsNamedAndTheAlkalinityKept) {
  auto water = hardWell();
  water.ph = 3.0;
  const auto solutes = waterSolutes(water);
  EXPECT_TRUE(solutes.phContradicts);
  EXPECT_NEAR(solutes.perLitre.alkalinityEq, *water.alkalinityMeqPerL / 1000, 1e-12);
  water.ph = 7.4;
  EXPECT_FALSE(waterSolutes(water).phContradicts);
  water.alkalinityMeqPerL.reset();
  EXPECT_FALSE(mix(water, {}, {}, test::litres(1)).ph);
}

TEST(Compute, AnOwnTitrationStandsForTheReportAndTheAcidFollowsIt) {
  Given given;
  given.request.water = hardWell();
  given.request.shelf = {test::salt("HNO3", 60)};
  given.request.alkalinityLeftMeqPerL = 0.5;
  given.stock.tanks = {{"A", test::litres(1)}, {"B", test::litres(1)}};
  given.acid.product = given.request.shelf[0];
  const double before = compute(given)->solution.grams[0].grams();
  auto truth = hardWell();
  truth.alkalinityMeqPerL = *truth.alkalinityMeqPerL * 0.8;
  auto water = titrated(mix(truth, {}, {}, test::litres(1)));
  water.conditions.temperature = Temperature::fromCelsius(20);
  OwnTitration titration;
  titration.productId = "HNO3";
  titration.acidPerMl = given.request.shelf[0].composition.solutesPerGram.scaled(1.3667);
  for (const double ml : {0.0, 0.05, 0.1, 0.15, 0.2})
    titration.readings.push_back({ml, phAfter(water, titration.acidPerMl, ml)});
  given.titration = titration;
  const auto answer = compute(given);
  ASSERT_TRUE(answer);
  EXPECT_NEAR(answer->acid.titration->alkalinityEqPerLitre, *truth.alkalinityMeqPerL / 1000, 3e-5);
  EXPECT_NEAR(answer->solution.grams[0].grams(), before * (0.8 * 4.064 - 0.5) / (4.064 - 0.5), 0.01 * before);
  given.titration->used = false;
  EXPECT_NEAR(compute(given)->solution.grams[0].grams(), before, 1e-9);
}
