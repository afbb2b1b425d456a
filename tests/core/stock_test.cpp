#include "stock/split.h"
#include "stock/stock.h"
#include "stock/stock_density.h"
#include "support/shelf_builder.h"

#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;

namespace {

StockPlan plan(double factor, double litresEach, double celsius = 20) {
  StockPlan p;
  p.factor = factor;
  p.temperature = Temperature::fromCelsius(celsius);
  p.tanks = {{"A", test::litres(litresEach)}, {"B", test::litres(litresEach)}};
  return p;
}

std::vector<std::string> idsIn(const StockAnswer& answer, std::size_t tank,
                               const std::vector<ShelfProduct>& shelf) {
  std::vector<std::string> ids;
  for (const auto& item : answer.tanks[tank].items)
    ids.push_back(shelf[item.product].id);
  return ids;
}

} // namespace

TEST(Stock, TheCalciumSideStandsApartFromSulfateAndPhosphate) {
  const std::vector<ShelfProduct> shelf{test::salt("Ca(NO3)2·4H2O"), test::salt("MgSO4·7H2O"),
                                        test::salt("KH2PO4"), test::salt("C10H12N2NaFeO8·3H2O")};
  const auto answer =
      planStock(shelf, {test::grams(1), test::grams(0.5), test::grams(0.2), test::grams(0.02)},
                test::litres(1), plan(100, 50));
  EXPECT_THAT(idsIn(answer, 0, shelf), ::testing::ElementsAre("Ca(NO3)2·4H2O", "C10H12N2NaFeO8·3H2O"));
  EXPECT_THAT(idsIn(answer, 1, shelf), ::testing::ElementsAre("MgSO4·7H2O", "KH2PO4"));
}

// Common practice: 0.95 g/L of feed at 1:100 in a 20 L tank is 1,900 g; 10 mL per litre, 37.9 mL per US
// gallon.
TEST(Stock, TankGramsAreFeedTimesFactorTimesLitres) {
  const auto answer =
      planStock({test::salt("Ca(NO3)2·4H2O")}, {test::grams(0.95)}, test::litres(1), plan(100, 20));
  EXPECT_NEAR(answer.tanks[0].items.at(0).mass.grams(), 1900, 1e-9);
  EXPECT_NEAR(answer.doseMlPerLitre, 10, 1e-12);
  EXPECT_NEAR(answer.doseMlPerLitre * Volume::fromUsGallons(1).litres(), 37.85411784, 1e-9);
  EXPECT_NEAR(answer.feedMade->litres(), 2000, 1e-9);
}

TEST(Stock, PotassiumNitrateIsDividedToLevelTheTanks) {
  const std::vector<ShelfProduct> shelf{test::salt("Ca(NO3)2·4H2O"), test::salt("K2SO4"), test::salt("KNO3")};
  const auto answer = planStock(shelf, {test::grams(0.6), test::grams(0.5), test::grams(0.4)},
                                test::litres(1), plan(100, 100));
  EXPECT_NEAR(answer.tanks[0].total().grams(), answer.tanks[1].total().grams(), 1e-6);
  EXPECT_NEAR((answer.tanks[0].total() + answer.tanks[1].total()).grams(), 15000, 1e-6);
}

TEST(Stock, SharesByHandAreKept) {
  const std::vector<ShelfProduct> shelf{test::salt("KNO3")};
  auto p = plan(100, 10);
  p.shares["KNO3"] = {0.6, 0.4};
  const auto answer = planStock(shelf, {test::grams(1)}, test::litres(1), p);
  EXPECT_NEAR(answer.tanks[0].items.at(0).mass.grams(), 600, 1e-9);
  EXPECT_NEAR(answer.tanks[1].items.at(0).mass.grams(), 400, 1e-9);
}

TEST(Stock, AnAcidIsNeverPutIntoATankByItself) {
  auto acid = test::salt("HNO3", 60);
  acid.liquid = true;
  const auto answer = planStock({acid}, {test::grams(0.1)}, test::litres(1), plan(100, 10));
  EXPECT_TRUE(answer.tanks[0].items.empty() && answer.tanks[1].items.empty());
  EXPECT_THAT(answer.notPlaced, ::testing::ElementsAre(0u));
  EXPECT_EQ(answer.notices.at(0).kind, StockWarning::NotPlaced);
}

TEST(Stock, AForcedMeetingIsSaid) {
  const std::vector<ShelfProduct> shelf{test::salt("Ca(NO3)2·4H2O"), test::salt("MgSO4·7H2O")};
  auto p = plan(100, 10);
  p.shares["MgSO4·7H2O"] = {1, 0};
  const auto answer = planStock(shelf, {test::grams(1), test::grams(0.5)}, test::litres(1), p);
  EXPECT_THAT(answer.notices,
              ::testing::Contains(::testing::Field(&StockNotice::kind, StockWarning::CalciumMeets)));
}

TEST(Stock, ATooStrongTankNamesTheSaltAndTheStrengthThatDissolves) {
  // K2SO4 at 20 degC: about 111 g per kg of water (CRC Handbook, from memory). 1.5 g/L at 1:100 is 150 g/L.
  const std::vector<ShelfProduct> shelf{test::salt("K2SO4")};
  const auto strong = planStock(shelf, {test::grams(1.5)}, test::litres(1), plan(100, 10));
  ASSERT_FALSE(strong.notices.empty());
  EXPECT_EQ(strong.notices[0].kind, StockWarning::WontDissolve);
  EXPECT_EQ(strong.notices[0].product, "K2SO4");
  const double ceiling = *strong.tanks[1].maxFactor;
  EXPECT_NEAR(ceiling, 72, 4); // less than 111/1.5 = 74, since the salt takes up room
  const auto atCeiling = planStock(shelf, {test::grams(1.5)}, test::litres(1), plan(ceiling * 0.9999, 10));
  EXPECT_TRUE(atCeiling.notices.empty());
  EXPECT_NEAR(*atCeiling.tanks[1].items[0].saturation, 1, 0.001);
}

TEST(Stock, ColdLowersTheCeiling) {
  const std::vector<ShelfProduct> shelf{test::salt("KNO3")};
  const auto warm = planStock(shelf, {test::grams(1)}, test::litres(1), plan(100, 10, 25));
  const auto cold = planStock(shelf, {test::grams(1)}, test::litres(1), plan(100, 10, 5));
  EXPECT_LT(*cold.tanks[0].maxFactor, 0.6 * *warm.tanks[0].maxFactor);
}

TEST(Stock, WhatIsNotKnownIsNotGreen) {
  const std::vector<ShelfProduct> shelf{test::labelled("npk", {{"P2O5", 11}, {"K2O", 31}}),
                                        test::salt("KNO3")};
  const auto answer = planStock(shelf, {test::grams(1), test::grams(0.1)}, test::litres(1), plan(100, 10));
  EXPECT_FALSE(answer.tanks[1].items.at(0).saturation);
  EXPECT_FALSE(answer.tanks[1].maxFactor);
  const auto outside = planStock({test::salt("KNO3")}, {test::grams(1)}, test::litres(1), plan(100, 10, 60));
  EXPECT_FALSE(outside.tanks[0].maxFactor);
}

TEST(Stock, SolubilityIsHeldAgainstFreeWaterNotAgainstTheLitre) {
  // 300 g/L of KNO3 looks like 95 % of 316 g per kg of water, but a litre of it holds only about 0.88 kg of
  // water.
  const auto answer = planStock({test::salt("KNO3")}, {test::grams(3)}, test::litres(1), plan(100, 10));
  EXPECT_GT(*answer.tanks[0].items.at(0).saturation, 1.05);
}

namespace {
constexpr auto at20C = Temperature::fromCelsius(20);
}

// Densities at 20 degC, CRC Handbook concentrative properties (from memory): KNO3 10 % 1.0627, MgSO4 10
// % 1.1034, K2SO4 8 % 1.0650, KH2PO4 10 % 1.0713 g/mL.
TEST(StockDensity, WaterLeftMatchesHandbookDensities) {
  struct Case {
    const char* formula;
    double percent, density;
  };
  for (const Case c : {Case{"KNO3", 10, 1.0627}, Case{"MgSO4", 10, 1.1034}, Case{"K2SO4", 8, 1.0650},
                       Case{"KH2PO4", 10, 1.0713}}) {
    const double saltKg = c.density * c.percent / 100;
    const double water =
        StockWater({test::salt(c.formula)}, {Concentration::fromGramsPerLitre(saltKg * 1000)}, at20C)
            .kgPerLitre();
    EXPECT_NEAR(water, c.density - saltKg, 0.003) << c.formula;
  }
}

TEST(StockDensity, HydrateWaterCountsAsWater) {
  const double anhydrous =
      StockWater({test::salt("MgSO4")}, {Concentration::fromGramsPerLitre(120.361)}, at20C).kgPerLitre();
  const double hydrate =
      StockWater({test::salt("MgSO4·7H2O")}, {Concentration::fromGramsPerLitre(246.466)}, at20C).kgPerLitre();
  EXPECT_NEAR(anhydrous, hydrate, 1e-6);
}
