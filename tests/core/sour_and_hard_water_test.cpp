// Waters that were once read wrongly: each case with the figure that is right.
#include "chem/ions.h"
#include "formula/mix.h"
#include "solution/acid_dose.h"
#include "support/shelf_builder.h"
#include "units/convert.h"
#include "water/blend.h"
#include "water/examine.h"
#include "water/rereading.h"
#include "water/treatment.h"
#include "water/verdict.h"
#include "water/water_solutes.h"

#include <cmath>
#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;

namespace {

Water waterWith(std::vector<WaterRow> rows, std::optional<double> ph = {}) {
  WaterReport report;
  report.milligramsPerLitre = std::move(rows);
  report.ph = ph;
  auto water = normaliseWater(report);
  EXPECT_TRUE(water);
  return water ? *water : Water{};
}

bool measured(const Water& water, Nutrient n) {
  return water.measured[static_cast<std::size_t>(n)];
}

double baseTo(const Water& water, double ph) {
  const auto source = waterSolutes(water);
  const auto base = compositionFromFormula("KOH", 100);
  const auto dose = doseToReach({source.perLitre, 0.998, {}}, base->solutesPerGram, ph);
  EXPECT_TRUE(dose);
  return dose ? dose->gramsPerLitre / 56.105 * 1000 : -1; // mmol/L
}

} // namespace

TEST(HardWater, WithOneOfItsIonsHardnessStatesTheOther) {
  // 250 mg/L as CaCO3 are 4.996 meq/L; 80.16 mg/L of calcium are 4.000 of them.
  const auto water = waterWith({{"hardness_as_CaCO3", 250}, {"Ca", 80.16}});
  EXPECT_TRUE(measured(water, Nutrient::Mg));
  EXPECT_NEAR(water.milligramsPerLitre.of(Nutrient::Mg), 0.996 * 24.305 / 2, 0.05);
  const auto other = waterWith({{"hardness_as_CaCO3", 250}, {"Mg", 12.15}});
  EXPECT_TRUE(measured(other, Nutrient::Ca));
  EXPECT_NEAR(other.milligramsPerLitre.of(Nutrient::Ca), 3.996 * 40.078 / 2, 0.1);
  const auto soft = waterWith({{"hardness_as_CaCO3", 200.2}, {"Ca", 80.16}});
  EXPECT_TRUE(measured(soft, Nutrient::Mg)) << "none is an answer too";
  const auto guessed = waterWith({{"hardness_as_CaCO3", 250}});
  EXPECT_FALSE(measured(guessed, Nutrient::Mg)) << "a split is a guess";
}

TEST(Permeate, OfANitrateWellBalancesWithSodium) {
  const auto well = waterWith({{"Ca", 80}, {"Na", 23}, {"N_NO3", 56}, {"HCO3", 61}}, 6.5);
  ReverseOsmosis plant;
  plant.rejectionPercent = 95;
  const auto out = throughMembrane(well, plant);
  const auto ions = ionBalance(out.water.milligramsPerLitre, *out.water.alkalinityMeqPerL);
  const auto before = ionBalance(well.milligramsPerLitre, *well.alkalinityMeqPerL);
  const double open = 0.05 * (before.cationsMeqPerL() - before.anionsMeqPerL());
  EXPECT_NEAR(ions.cationsMeqPerL() - ions.anionsMeqPerL(), open, 1e-6);
  EXPECT_GE(*out.water.alkalinityMeqPerL, 0);
}

TEST(Convert, AlkalinityIsNotConvertedByItsCarbon) {
  EXPECT_EQ(convert(1, "CaCO3", "HCO3").problem().code, ProblemCode::CarbonOrCharge);
  EXPECT_EQ(convert(1, "HCO3", "CO3").problem().code, ProblemCode::CarbonOrCharge);
  EXPECT_NEAR(*convert(1, "mg/L_CaCO3", "mg/L", "HCO3"), 61.017 / 50.043, 1e-3);
  EXPECT_NEAR(*convert(1, "CaCO3", "Ca"), 0.4004, 1e-3); // one way only
  EXPECT_NEAR(*convert(1, "CaCO3", "CO3"), 60.009 / 100.086, 1e-4) << "the same by carbon and by charge";
}

TEST(Blend, WithNoShareAmongTheOthersTheyCountEvenly) {
  const auto hard = waterWith({{"HCO3", 305.1}, {"Na", 30}}), soft = waterWith({{"HCO3", 6.1}, {"Na", 1}});
  const auto share = largestShare({{hard, 1}, {soft, 0}}, 0, {BlendGoal::Alkalinity, 1});
  ASSERT_TRUE(share);
  EXPECT_NEAR(*share, (1 - 0.1) / (5 - 0.1), 1e-3);
}

TEST(Blend, OfTheThinWaterNoMoreIsTakenThanIsNeeded) {
  const auto hard = waterWith({{"HCO3", 305.1}}), rain = waterWith({{"HCO3", 6.1}});
  const auto share = largestShare({{rain, 1}, {hard, 1}}, 0, {BlendGoal::Alkalinity, 1});
  ASSERT_TRUE(share);
  EXPECT_NEAR(*share, 1 - (1 - 0.1) / (5 - 0.1), 1e-3);
}

TEST(Rereading, SodiumForChlorideAndDegreesOfHardnessAreFound) {
  TypedReport balanced;
  balanced.rows = {{"Ca", 80.16},  {"Mg", 12.15},  {"Na", 22.99},
                   {"Cl", 106.35}, {"SO4", 48.03}, {"HCO3", 122.04}};
  auto swapped = balanced;
  std::swap(swapped.rows[2].value, swapped.rows[3].value);
  EXPECT_THAT(rereadingsOf(swapped),
              ::testing::Contains(::testing::AllOf(::testing::Field(&Rereading::kind, RereadingKind::Swapped),
                                                   ::testing::Field(&Rereading::from, "Na"))));
  auto degrees = balanced;
  degrees.rows[0].value = 4.0 / 0.35664; // 4 meq/L in German degrees, typed as mg/L
  EXPECT_THAT(rereadingsOf(degrees), ::testing::Contains(::testing::AllOf(
                                         ::testing::Field(&Rereading::kind, RereadingKind::OtherUnit),
                                         ::testing::Field(&Rereading::to, "dH"))));
}

TEST(Rereading, MillimolesAndEquivalentsOfOneChargeAreOneAnswer) {
  TypedReport report;
  report.rows = {
      {"Na", 8}, {"Cl", 283.6}, {"HCO3", 61.02}, {"K", 39.1}}; // 8 meq/L of chloride: sodium's 8 are not mg/L
  int ofSodium = 0;
  for (const auto& way : rereadingsOf(report))
    ofSodium += way.kind == RereadingKind::OtherUnit && way.from == "Na";
  EXPECT_EQ(ofSodium, 1);
}

TEST(Verdicts, HeavyElementsAndLeavesHaveTheirLimits) {
  auto water = waterWith({{"V", 0.2}, {"Se", 0.03}, {"Co", 0.06}, {"Be", 0.2}, {"Cl", 150}, {"Mo", 0.02}});
  const auto levelOf = [&](const std::string& property) {
    for (const auto& verdict : verdictsOn(water, {}, {}))
      if (verdict.property == property) return verdict.level;
    ADD_FAILURE() << property;
    return VerdictLevel::NotMeasured;
  };
  for (const char* metal : {"V", "Se", "Co", "Be"})
    EXPECT_EQ(levelOf(metal), VerdictLevel::TooHigh) << metal;
  EXPECT_EQ(levelOf("Mo"), VerdictLevel::Watch) << "0.01 is FAO's maximum for fodder";
  const auto onLeaves = std::find_if(waterLimits().begin(), waterLimits().end(), [](const WaterLimit& limit) {
    return limit.property == "Cl" && limit.use == "overhead";
  });
  ASSERT_NE(onLeaves, waterLimits().end());
  EXPECT_NEAR(onLeaves->fineBelow, 3 * 35.45, 0.5) << "3 meq/L";
}

TEST(Examination, OfAnAlkalinityAloneNothingIsSaidThatItDoesNotTell) {
  TypedReport report;
  report.rows = {{"HCO3", 200}};
  report.ph = 7.6;
  const auto found = examineReport(report);
  ASSERT_TRUE(found);
  for (const auto& doubt : found->doubts) {
    EXPECT_NE(doubt.doubt, WaterDoubt::PhOfPureWater) << "3.3 meq/L are not nearly pure";
    EXPECT_NE(doubt.doubt, WaterDoubt::ChargeUnbalanced);
  }
  const auto water = waterOf(report);
  ASSERT_TRUE(water);
  EXPECT_THAT(water->remarks, ::testing::Not(::testing::Contains(WaterRemark::ChargeUnbalanced)));
}

// A rain of pH 4 without bicarbonate holds a tenth of a milliequivalent of strong acid (10^-4 mol/L over its
// activity coefficient), not 24 mmol/L of carbon dioxide.
TEST(SourWater, AWaterOfPh4HoldsStrongAcid) {
  const auto rain = waterWith({{"SO4", 4.8}, {"HCO3", 0}}, 4.0);
  const auto source = waterSolutes(rain);
  EXPECT_NEAR(source.perLitre.alkalinityEq, -1.03e-4, 0.04e-4);
  EXPECT_LT(source.perLitre.of(Component::Carbonate), 5e-5);
  EXPECT_NEAR(baseTo(rain, 6.0), 0.11, 0.02);
  // A well under carbon dioxide keeps its alkalinity and its gas.
  const auto well = waterWith({{"HCO3", 30.5}, {"Ca", 10}}, 5.3);
  EXPECT_GT(waterSolutes(well).perLitre.of(Component::Carbonate), 3e-3);
}

TEST(SourWater, NegativeAlkalinityCanBeEntered) {
  const auto mine = waterWith({{"SO4", 480.3}, {"Ca", 160.3}, {"alkalinity_as_CaCO3", -100}});
  EXPECT_NEAR(*mine.alkalinityMeqPerL, -1.998, 1e-3);
  EXPECT_NEAR(baseTo(mine, 7.0), 2.0, 0.05);
  WaterReport report;
  report.milligramsPerLitre = {{"alkalinity_as_CaCO3", -5001}};
  EXPECT_EQ(normaliseWater(report).problem().code, ProblemCode::OutOfRange);
}

TEST(Phosphite, IsRefusedAndPhosphatesAreNot) {
  for (const char* formula : {"KH2PO3", "K2HPO3", "H3PO3", "CaHPO3·H2O", "NH4H2PO3"})
    EXPECT_EQ(compositionFromFormula(formula, 100).problem().code, ProblemCode::PhosphiteNotPhosphate)
        << formula;
  for (const char* formula : {"KH2PO4", "K4P2O7", "KPO3", "CaHPO4·2H2O", "CO(NH2)2·H3PO4", "Ca5(PO4)3OH",
                              "NH4H2PO4", "MgNH4PO4·6H2O"})
    EXPECT_TRUE(compositionFromFormula(formula, 100)) << formula;
}
