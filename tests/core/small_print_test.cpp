// Edges that a change of one sign used to pass unseen.
#include "chem/same_substance.h"
#include "formula/mix.h"
#include "product/catalogue.h"
#include "solution/solution_volume.h"
#include "solve/audit.h"
#include "solve/mends.h"
#include "solve/solve.h"
#include "stock/solubility.h"
#include "stock/stock.h"
#include "support/shelf_builder.h"
#include "water/blend.h"
#include "water/examine.h"

#include <gmock/gmock.h>

namespace butte::core {
namespace {

using test::grams;
using test::litres;
using test::salt;
using ::testing::Contains;
using ::testing::Not;

Water waterWith(const std::vector<WaterRow>& rows, std::optional<double> ph) {
  WaterReport report;
  report.milligramsPerLitre = rows;
  report.ph = ph;
  return *normaliseWater(report);
}

TEST(SmallPrint, ABlendsPhIsOpenWhileAPartWithAlkalinityHasNone) {
  const auto bore = waterWith({{"Ca", 80}, {"HCO3", 244}}, 7.6),
             other = waterWith({{"Ca", 40}, {"HCO3", 122}}, {});
  const auto rain = waterWith({{"Ca", 1}, {"HCO3", 0}}, {});
  EXPECT_TRUE(blended({{bore, 1}, {rain, 1}}).ph) << "what holds no alkalinity has no say";
  EXPECT_FALSE(blended({{bore, 1}, {other, 1}}).ph) << "its carbon dioxide is not known";
  EXPECT_TRUE(blended({{bore, 1}, {other, 0}}).ph) << "a part that is not taken";
}

TEST(SmallPrint, HardnessBesideOneOfItsIonsGivesTheOther) {
  // 250 mg/L as CaCO3 are 4.996 meq/L; 60 mg/L of calcium are 2.994 of them.
  const auto water = waterWith({{"hardness_as_CaCO3", 250}, {"Ca", 60}}, {});
  EXPECT_NEAR(water.milligramsPerLitre.of(Nutrient::Mg), (250 / 50.04 - 60 / 20.039) * 12.1525, 0.05);
  EXPECT_THAT(water.remarks, Not(Contains(WaterRemark::HardnessDisagrees)))
      << "one ion beside the sum disagrees with nothing";
  EXPECT_DOUBLE_EQ(water.plusMinusMgPerL.of(Nutrient::Mg), 0);
  const auto magnesium = waterWith({{"hardness_as_CaCO3", 250}, {"Mg", 20}}, {});
  EXPECT_NEAR(magnesium.milligramsPerLitre.of(Nutrient::Ca), (250 / 50.04 - 20 / 12.1525) * 20.039, 0.08);
}

TEST(SmallPrint, ASplitHardnessIsAGuessWithItsRange) {
  const auto water = waterWith({{"hardness_as_CaCO3", 250}}, {});
  const double meq = 250 / 50.04;
  EXPECT_THAT(water.remarks, Contains(WaterRemark::HardnessSplitAssumed));
  EXPECT_NEAR(water.plusMinusMgPerL.of(Nutrient::Ca), 0.15 * meq * 20.039, 0.05);
  EXPECT_NEAR(water.plusMinusMgPerL.of(Nutrient::Mg), 0.15 * meq * 12.1525, 0.05);
  EXPECT_NEAR(water.milligramsPerLitre.of(Nutrient::Ca) / 20.039 +
                  water.milligramsPerLitre.of(Nutrient::Mg) / 12.1525,
              meq, 0.01);
}

TEST(SmallPrint, HardnessLessThanItsIonsDisagrees) {
  const auto both = waterWith({{"hardness_as_CaCO3", 250}, {"Ca", 40}, {"Mg", 10}}, {});
  EXPECT_THAT(both.remarks, Contains(WaterRemark::HardnessDisagrees));
  const auto one = waterWith({{"hardness_as_CaCO3", 100}, {"Ca", 80}}, {});
  EXPECT_THAT(one.remarks, Contains(WaterRemark::HardnessDisagrees));
  const auto fits = waterWith({{"hardness_as_CaCO3", 250}, {"Ca", 80}, {"Mg", 12.15}}, {});
  EXPECT_THAT(fits.remarks, Not(Contains(WaterRemark::HardnessDisagrees)));
}

TEST(SmallPrint, ACapBelowTheWaterSaysWhatStandsAgainstIt) {
  SolveRequest request;
  request.shelf = {salt("KCl")};
  request.volume = litres(1000);
  request.water = test::waterOf({{"Cl", 60}});
  request.rows = {{Nutrient::K, 100, 5, 1}};
  request.caps = {{Nutrient::Cl, 40}};
  const auto water = solve(request);
  ASSERT_TRUE(water);
  ASSERT_EQ(water->reasons.size(), 1u);
  EXPECT_EQ(water->reasons[0].kind, ReasonKind::WaterOverCap);
  EXPECT_NEAR(water->reasons[0].has, 60, 1e-6);
  EXPECT_NEAR(water->reasons[0].wants, 40, 1e-9);
  request.caps = {{Nutrient::Cl, 80}};
  request.shelf[0].locked = grams(100); // 47.55 g of chlorine in 1000 L: 47.6 mg/L
  const auto locked = solve(request);
  ASSERT_TRUE(locked);
  ASSERT_FALSE(locked->reasons.empty());
  EXPECT_EQ(locked->reasons[0].kind, ReasonKind::WaterOverCap);
  EXPECT_NEAR(locked->reasons[0].has, 60 + 47.55, 0.1) << "the water and what is held together";
}

TEST(SmallPrint, EverySlipOfASheetIsCalledByItsName) {
  SolveRequest request;
  request.volume = litres(1000);
  request.shelf = {salt("KNO3"), salt("MgSO4·7H2O")};
  request.rows = {{Nutrient::K, 200, 5, 1}, {Nutrient::NNitrate, 71.6, 5, 1}, {Nutrient::Mg, 40, 5, 1}};
  const double right = 517.2;
  const struct {
    double stands;
    SheetSlip slip;
  } slips[] = {{0, SheetSlip::LeftOut},
               {right * 10, SheetSlip::DecimalPoint},
               {right * 100, SheetSlip::DecimalPoint},
               {right * 1000, SheetSlip::DecimalPoint},
               {right / 10, SheetSlip::DecimalPoint},
               {right / 100, SheetSlip::DecimalPoint},
               {right * 2, SheetSlip::Doubled},
               {right / 2, SheetSlip::Halved},
               {right * 0.45359, SheetSlip::PoundsForKilograms},
               {right / 0.45359, SheetSlip::KilogramsForPounds},
               {right * 28.35, SheetSlip::OuncesForGrams},
               {right / 28.35, SheetSlip::OuncesForGrams},
               {right * 1.31, SheetSlip::Unknown}};
  for (const auto& [stands, slip] : slips) {
    const auto suspects = suspectLines(request, {grams(stands), grams(405.6)});
    ASSERT_FALSE(suspects.empty()) << stands;
    EXPECT_EQ(suspects[0].product, "KNO3");
    EXPECT_EQ(suspects[0].slip, slip) << stands;
    EXPECT_NEAR(suspects[0].fits.grams(), right, 0.02 * right) << stands;
  }
  EXPECT_TRUE(suspectLines(request, {grams(right), grams(405.6)}).empty());
}

TEST(SmallPrint, AWidenedBandIsTypedInTenthsAndIsNotWiderThanNeeded) {
  SolveRequest request;
  request.volume = litres(1000);
  request.shelf = {salt("K2SO4")};
  request.rows = {{Nutrient::K, 200, 5, 1}, {Nutrient::S, 60, 5, 1}};
  const auto answer = solve(request);
  ASSERT_TRUE(answer);
  bool widened = false;
  for (const auto& mend : mendsFor(request, *answer, {}, {})) {
    if (mend.kind != MendKind::WidenBand) continue;
    widened = true;
    EXPECT_NEAR(mend.value * 10, std::round(mend.value * 10), 1e-9);
    // A tenth less would not do.
    SolveRequest narrower = mend.request;
    for (auto& row : narrower.rows)
      if (row.nutrient == mend.nutrient) row.tolerancePercent = mend.value - 0.1;
    const auto less = solve(narrower);
    ASSERT_TRUE(less);
    EXPECT_GT(offBands(narrower, less->grams), mend.offAfter) << nutrientKey(mend.nutrient);
  }
  EXPECT_TRUE(widened);
}

TEST(SmallPrint, GramsOfASoldHydrateAreTurnedIntoWaterFreeSubstance) {
  // data/solubility.csv: 122 g of 5Ca(NO3)2.NH4NO3.10H2O in 100 g of water at 20 degC. A tenth and a half of
  // it is water.
  const auto* product = findInCatalogue("can_double");
  ASSERT_TRUE(product && product->composition.formula);
  const auto& formula = *product->composition.formula;
  const double hydrate = 10 * 18.015 / formula.molarMassGPerMol;
  const auto dissolves = anhydrousGramsPerKgWater(formula, Temperature::fromCelsius(20));
  ASSERT_TRUE(dissolves);
  EXPECT_NEAR(*dissolves, 1220 * (1 - hydrate) / (1 + 1.220 * hydrate), 1);
  EXPECT_FALSE(anhydrousGramsPerKgWater(formula, Temperature::fromCelsius(60)))
      << "where the table ends, nothing is known";
}

TEST(SmallPrint, TheIonsOfAnAcidTakeTheRoomOfTheSaltThatTheyCameFrom) {
  // Ion by ion, phosphate is counted as dihydrogen or hydrogen phosphate by what alkalinity there is.
  for (const char* name : {"KH2PO4", "K2HPO4", "KHCO3", "K2CO3"}) {
    const auto composition = *compositionFromFormula(name, 100);
    const double whole = apparentMillilitresPerGram(*densitySubstanceOf(*composition.formula), 0.95, 20);
    double parts = 0;
    for (const auto& part : volumePartsOf(composition.solutesPerGram))
      parts += part.grams * apparentMillilitresPerGram(part.substance, 0.95, 20);
    EXPECT_NEAR(parts, whole, 0.003) << name << ", mL per gram";
  }
}

TEST(SmallPrint, AnAlkalinityBesideItsBicarbonateIsDoubtedWhereTheyPart) {
  const auto doubted = [](double asCaCO3, double bicarbonate) {
    TypedReport report;
    report.rows = {{"Ca", 40}, {"alkalinity_as_CaCO3", asCaCO3}, {"HCO3", bicarbonate}};
    const auto found = examineReport(report);
    return found && std::any_of(found->doubts.begin(), found->doubts.end(), [](const DoubtFound& d) {
             return d.doubt == WaterDoubt::AlkalinityDisagrees;
           });
  };
  EXPECT_TRUE(doubted(150, 122)) << "122 mg/L of bicarbonate are 100 as CaCO3";
  EXPECT_FALSE(doubted(100, 122));
  EXPECT_FALSE(doubted(3, 1.2)) << "2 mg/L apart: nothing that a laboratory could tell";
}

TEST(SmallPrint, OneSubstanceIsNotAnotherWithMoreInIt) {
  const auto formula = [](const char* text) { return *compositionFromFormula(text, 100)->formula; };
  EXPECT_TRUE(sameSubstance(formula("MgSO4"), formula("MgSO4·7H2O")));
  EXPECT_FALSE(sameSubstance(formula("MgSO4"), formula("CaSO4")));
  EXPECT_FALSE(sameSubstance(formula("KNO3"), formula("KNO2")));
  EXPECT_FALSE(sameSubstance(formula("NH4H2PO4"), formula("(NH4)2HPO4")));
}

TEST(SmallPrint, PhosphateMeetingCalciumByHandIsSaidAsSulfateIs) {
  for (const char* other : {"KH2PO4", "K2SO4"}) {
    std::vector<ShelfProduct> shelf{salt("Ca(NO3)2·4H2O"), salt(other)};
    StockPlan plan;
    plan.factor = 100;
    plan.tanks = {{"A", litres(100)}, {"B", litres(100)}};
    plan.shares = {{shelf[0].id, {1, 0}}, {shelf[1].id, {1, 0}}};
    const auto stock = planStock(shelf, {grams(900), grams(400)}, litres(1000), plan);
    const bool said = std::any_of(stock.notices.begin(), stock.notices.end(),
                                  [](const StockNotice& n) { return n.kind == StockWarning::CalciumMeets; });
    EXPECT_TRUE(said) << other;
  }
}

} // namespace
} // namespace butte::core
