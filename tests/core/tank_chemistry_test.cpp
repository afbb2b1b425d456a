#include "formula/mix.h"
#include "stock/salt_solids.h"
#include "stock/solubility.h"
#include "stock/stock.h"
#include "stock/tank_chemistry.h"
#include "support/shelf_builder.h"

#include <cmath>
#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;

namespace {

Solutes perMole(const SaltSolid& salt) {
  const auto pure = compositionFromFormula(salt.formula.text, 100);
  return pure->solutesPerGram.scaled(salt.formula.molarMassGPerMol);
}

double saturatedMolality(const SaltSolid& salt, double celsius) {
  const auto grams = anhydrousGramsPerKgWater(salt.formula, Temperature::fromCelsius(celsius));
  return *grams / (salt.formula.molarMassGPerMol * (1 - hydrateWaterFraction(salt.formula)));
}

/// Strength 1 over the strength at which the solid begins to fall.
double saturationOf(const TankChemistry& tank, const std::string& name) {
  for (const auto& reach : tank.reaches()) {
    if (reach.solid.name == name) return 1 / reach.criticalStrength;
  }
  return 0;
}

StockPlan oneTank(double factor, double celsius) {
  StockPlan plan;
  plan.factor = factor;
  plan.temperature = Temperature::fromCelsius(celsius);
  plan.tanks = {{"A", test::litres(10)}};
  return plan;
}

} // namespace

// Its own constant comes from that solubility: what is held here is that the search finds it, that nothing
// comes before it, and that it is passed once only.
TEST(TankChemistry, ASaltAloneGivesOutAtItsMeasuredSolubility) {
  for (const double celsius : {5.0, 20.0}) {
    for (const auto& salt : saltSolids()) {
      if (salt.constant) continue; // forms from others
      const TankChemistry half(perMole(salt).scaled(0.5 * saturatedMolality(salt, celsius)),
                               Temperature::fromCelsius(celsius));
      ASSERT_TRUE(half.known()) << salt.name;
      EXPECT_NEAR(saturationOf(half, salt.name), 0.5, 0.01) << salt.name << " at " << celsius;
    }
  }
}

TEST(TankChemistry, SharedIonsBringASaltNearerToFalling) {
  const auto alone = planStock({test::salt("K2SO4")}, {test::grams(0.5)}, test::litres(1), oneTank(100, 15));
  const auto company =
      planStock({test::salt("K2SO4"), test::salt("KNO3"), test::salt("MgSO4·7H2O")},
                {test::grams(0.5), test::grams(0.5), test::grams(0.5)}, test::litres(1), oneTank(100, 15));
  EXPECT_GT(*company.tanks[0].items[0].saturation, 1.2 * *alone.tanks[0].items[0].saturation);
  EXPECT_LT(*company.tanks[0].maxFactor, 0.85 * *alone.tanks[0].maxFactor);
}

// Solutions saturated with two salts of a shared ion at 25 degC (Linke & Seidell, "Solubilities of Inorganic
// and Metal-Organic Compounds", from memory): KCl 11.1 % beside NaCl 20.4 % (high confidence); KNO3 24.5 %
// beside K2SO4 4.3 % (low confidence; Pitzer's parameters say 0.74 of it). By their own solubility alone they
// would stand at 0.46, 0.90 and 0.50 of it.
TEST(TankChemistry, PairsWithASharedIonGiveOutWhereTheyWereMeasured) {
  struct Pair {
    const char *a, *b;
    double percentA, percentB;
    bool bothKnown;
  };
  for (const Pair pair : {Pair{"KCl", "NaCl", 11.1, 20.4, false}, Pair{"KNO3", "K2SO4", 24.5, 4.3, true}}) {
    const std::vector<ShelfProduct> shelf{test::salt(pair.a), test::salt(pair.b)};
    // The litre that holds this much water: two rounds settle it.
    double waterKg = 0.85;
    StockAnswer stock;
    for (int round = 0; round < 6; ++round) {
      const double perKg = 1000 / (100 - pair.percentA - pair.percentB);
      stock = planStock(
          shelf, {test::grams(pair.percentA * perKg * waterKg), test::grams(pair.percentB * perKg * waterKg)},
          test::litres(1), oneTank(1, 25));
      waterKg = stock.tanks[0].waterKgPerLitre;
    }
    EXPECT_NEAR(*stock.tanks[0].items.at(0).saturation, 1, 0.2) << pair.a;
    if (pair.bothKnown) {
      EXPECT_NEAR(*stock.tanks[0].items.at(1).saturation, 1, 0.3) << pair.b;
    }
  }
}

// Common practice: concentrated calcium nitrate with magnesium sulfate gives gypsum, the feed does not.
TEST(TankChemistry, CalciumNitrateWithMagnesiumSulfateGivesGypsumAsStockNotAsFeed) {
  const std::vector<ShelfProduct> shelf{test::salt("Ca(NO3)2·4H2O"), test::salt("MgSO4·7H2O")};
  const std::vector<Mass> grams{test::grams(0.9), test::grams(0.5)};
  auto plan = oneTank(100, 15);
  plan.shares["MgSO4·7H2O"] = {1};
  const auto stock = planStock(shelf, grams, test::litres(1), plan);
  ASSERT_FALSE(stock.tanks[0].solids.empty());
  EXPECT_EQ(stock.tanks[0].solids[0].name, "gypsum");
  EXPECT_EQ(stock.tanks[0].limitingSolid, "gypsum");
  // 0.203 mol/L of sulfate meet 0.381 mol/L of calcium: nearly all of it falls, 35 g/L of gypsum.
  EXPECT_NEAR(stock.tanks[0].solids[0].gramsPerLitre, 0.9 * 0.203 * 172.17, 4);
  EXPECT_THAT(stock.notices,
              ::testing::Contains(::testing::Field(&StockNotice::kind, StockWarning::FallsOut)));
  const auto feed = mix(pureWater(), shelf, grams, test::litres(1));
  for (const auto& standing : feed.state->solids)
    EXPECT_LE(standing.gramsPerLitre, 0);
}

TEST(TankChemistry, PhosphateWithCalciumClouds) {
  const auto stock =
      planStock({test::salt("Ca(NO3)2·4H2O"), test::salt("KH2PO4"), test::salt("K2HPO4")},
                {test::grams(0.9), test::grams(0.1), test::grams(0.1)}, test::litres(1), oneTank(100, 15));
  const auto& solids = stock.tanks[0].solids;
  EXPECT_THAT(solids, ::testing::Contains(
                          ::testing::AllOf(::testing::Field(&TankSolid::name, "brushite"),
                                           ::testing::Field(&TankSolid::gramsPerLitre, ::testing::Gt(1)))));
}

TEST(TankChemistry, WhatCrystallisesIsWhatIsTooMuch) {
  // 150 g of K2SO4 per litre at 20 degC: 111 g per kg of water stay (CRC Handbook, from memory).
  const auto stock = planStock({test::salt("K2SO4")}, {test::grams(1.5)}, test::litres(1), oneTank(100, 20));
  const auto& tank = stock.tanks[0];
  EXPECT_NEAR(tank.solids[0].gramsPerLitre, 150 - 111 * tank.waterKgPerLitre, 3);
}

TEST(TankChemistry, OutsideTheTablesNothingIsClaimed) {
  const auto hot = planStock({test::salt("KNO3")}, {test::grams(1)}, test::litres(1), oneTank(100, 60));
  EXPECT_FALSE(hot.tanks[0].maxFactor);
  EXPECT_TRUE(hot.tanks[0].solids.empty());
  EXPECT_FALSE(hot.tanks[0].ph);
}
