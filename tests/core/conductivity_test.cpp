#include "base/decimal.h"
#include "formula/mix.h"
#include "product/catalogue.h"
#include "solution/conductivity.h"
#include "support/shelf_builder.h"
#include "support/text_table.h"

using namespace butte;
using namespace butte::core;

TEST(Conductivity, StandardsAndHandbookSolutionsComeOut) {
  for (const auto& row : test::readTextTable("conductivity.txt")) {
    const auto feed =
        mix(pureWater(), {test::salt(row[0])}, {test::grams(*parseDecimal(row[1]))}, test::litres(1));
    const double expected = *parseDecimal(row[2]);
    EXPECT_NEAR(feed.conductivity.milliSiemensPerCm(), expected, expected * *parseDecimal(row[3]) / 100)
        << row[0];
  }
}

TEST(Conductivity, TheGrowersRuleStandsBeside) {
  const auto feed = mix(pureWater(), {test::salt("KCl")}, {test::grams(0.74548)}, test::litres(1));
  EXPECT_NEAR(feed.conductivityByRule.milliSiemensPerCm(), 1.0, 0.001); // 10 meq/L of cations
}

TEST(Conductivity, AWaterKnownByItsEcOnlyStillReadsOnTheMeter) {
  WaterReport report;
  report.conductivityMsPerCm = 0.5;
  const auto water = normaliseWater(report);
  ASSERT_TRUE(water);
  EXPECT_NEAR(mix(*water, {}, {}, test::litres(1)).conductivity.milliSiemensPerCm(), 0.5,
              1e-4); // pure water itself: 0.00005
}

TEST(Conductivity, MoreSaltReadsHigherUpToStockStrength) {
  double before = 0;
  for (double g = 0.001; g < 300; g *= 1.5) {
    const auto feed = mix(pureWater(), {test::salt("KNO3")}, {test::grams(g)}, test::litres(1));
    EXPECT_GT(feed.conductivity.milliSiemensPerCm(), before) << g;
    before = feed.conductivity.milliSiemensPerCm();
  }
}

// KCl 0.01 mol/kg, CRC Handbook, from memory: 0.7736, 1.2205, 1.4083 mS/cm (of the 0.01 D standard).
TEST(Conductivity, TheStandardAtOtherTemperatures) {
  Solutes kcl;
  kcl.of(Component::K) = kcl.of(Component::Cl) = 0.01;
  for (const auto& [celsius, expected] : {std::pair{0.0, 0.7736}, {18.0, 1.2205}, {25.0, 1.4083}}) {
    EquilibriumConditions conditions;
    conditions.temperature = Temperature::fromCelsius(celsius);
    const auto settled = equilibrate(kcl, conditions);
    const auto found = conductivityOf(*settled, kcl, 0.998, conditions.temperature);
    EXPECT_NEAR(found.milliSiemensPerCm(), expected, 0.015 * expected) << celsius;
    // A meter that compensates by 2 % per kelvin shows nearly the figure at 25 degC, not quite.
    EXPECT_NEAR(compensatedReading(found, conditions.temperature).milliSiemensPerCm(), 1.41,
                celsius > 10 ? 0.02 : 0.2);
  }
}

// Common practice: blend, magnesium sulfate and calcium nitrate at 2.4 : 1.2 : 2.4 g per US gallon, with the
// partners that a blend's label leaves out, read about 1.5 to 1.9 mS/cm; at 2 : 1 : 2 g about 600 to 670 ppm
// (500).
TEST(Conductivity, TheUsualThreePartFeedReadsAsGrowersReport) {
  const auto ec = [](double blend, double epsom, double calcium) {
    const double litres = Volume::fromUsGallons(1).litres();
    return mix(pureWater(),
               {test::labelled("blend", {{"N_NO3", 4}, {"P2O5", 18}, {"K2O", 38}, {"S", 4.5}, {"Mg", 0.5}}),
                test::salt("MgSO4·7H2O"),
                test::labelled("cn", {{"N_NO3", 14.4}, {"N_NH4", 1.1}, {"Ca", 19}})},
               {test::grams(blend), test::grams(epsom), test::grams(calcium)}, test::litres(litres))
        .conductivity;
  };
  EXPECT_NEAR(ec(2.4, 1.2, 2.4).milliSiemensPerCm(), 1.6, 0.2);
  EXPECT_NEAR(ec(2, 1, 2).ppm500(), 640, 60);
}

// A chelate's ion carries current too, not its sodium alone.
TEST(Conductivity, AChelateCarriesItsShare) {
  const auto* product = findInCatalogue("fedtpa11");
  ASSERT_TRUE(product);
  Solutes solution = product->composition.solutesPerGram.scaled(1.0); // 1 g in a kilogram of water
  const auto whole = conductivityAt25(solution, 1, {});
  ASSERT_TRUE(whole);
  Solutes without = solution;
  for (auto& mol : without.chelateMol)
    mol = 0;
  const auto rest = conductivityAt25(without, 1, {});
  EXPECT_GT(whole->milliSiemensPerCm(), rest ? rest->milliSiemensPerCm() * 1.1 : 0.05);
}
