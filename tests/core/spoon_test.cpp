// Level spoons: what they hold, how far they are off, and when they are used (bench/spoon.h).
#include "bench/spoon.h"
#include "bench/weigh_plan.h"
#include "measures.h"
#include "stock/pre_stock.h"
#include "support/shelf_builder.h"

#include <gtest/gtest.h>

namespace butte::core {
namespace {

const Scale gramScale{"scale", test::grams(1), test::grams(5000)};

ShelfProduct spooned(double tenWeigh) {
  auto product = test::salt("MgSO4·7H2O");
  product.levelTeaspoon = test::grams(tenWeigh / 10);
  return product;
}

// A US teaspoon is 4.929 mL (NIST Handbook 44); a usual salt weighs about 1 kg/L in bulk (common practice).
TEST(Spoon, AnUnknownOneIsTakenForAUsualSaltAndSaysHowFarItMayBeOff) {
  const auto spoon = levelTeaspoon(test::salt("KNO3"));
  EXPECT_FALSE(spoon.weighed);
  EXPECT_NEAR(spoon.perTeaspoon.grams(), 4.93, 0.01);
  EXPECT_GE(spoon.errorPercent, 25);
}

TEST(Spoon, ALiquidFillsItByItsDensity) {
  auto acid = test::salt("HNO3");
  acid.liquid = true;
  acid.densityKgPerL = 1.37;
  EXPECT_NEAR(levelTeaspoon(acid).perTeaspoon.grams(), 4.92892 * 1.37, 0.01);
  EXPECT_LE(levelTeaspoon(acid).errorPercent, 5);
}

TEST(Spoon, TenWeighedOnesTellWhatOneHolds) {
  const auto spoon = levelTeaspoon(spooned(48));
  EXPECT_TRUE(spoon.weighed);
  EXPECT_NEAR(spoon.perTeaspoon.grams(), 4.8, 1e-12);
  EXPECT_LT(spoon.errorPercent, 10);
}

TEST(Spoon, AWeightIsRoundedToEighthsAndTheRoundingCounts) {
  const Spoonful spoon{test::grams(4.8), 8, true};
  const auto measure = measuredBySpoon(test::grams(11), spoon); // 2.29 spoons
  EXPECT_NEAR(measure.teaspoons, 2.25, 1e-12);
  EXPECT_NEAR(measure.mass.grams(), 10.8, 1e-12);
  EXPECT_NEAR(measure.errorPercent, 100 * (1 - 10.8 / 11) + 8 * 10.8 / 11, 1e-9);
  // Less than the smallest spoon is one of it, and its error says so.
  const auto trace = measuredBySpoon(test::grams(0.1), spoon);
  EXPECT_NEAR(trace.teaspoons, 0.125, 1e-12);
  EXPECT_GT(trace.errorPercent, 400);
}

TEST(Spoon, WithNoScaleAllDryProductsAreSpooned) {
  const auto plan = weighPlan({spooned(48)}, {test::grams(24)}, {levelSpoons()});
  ASSERT_EQ(plan.size(), 1u);
  EXPECT_NEAR(plan[0].teaspoons, 5, 1e-12);
  EXPECT_TRUE(plan[0].spoonWeighed);
  EXPECT_NEAR(plan[0].shown.grams(), 24, 1e-12);
}

TEST(Spoon, BesideAScaleTheOneThatIsNearerIsTaken) {
  const std::vector<Scale> both{gramScale, levelSpoons()};
  // 24 g: half a gram is 2 %, a spoon 8 %.
  EXPECT_EQ(weighPlan({spooned(48)}, {test::grams(30)}, both)[0].teaspoons, 0);
  // 1.2 g on whole grams is 42 % off, a level quarter spoon some 8 %.
  const auto little = weighPlan({spooned(48)}, {test::grams(1.2)}, both)[0];
  EXPECT_NEAR(little.teaspoons, 0.25, 1e-12);
  EXPECT_LT(little.errorPercent, 10);
  // Wherever the spoons stand in the list.
  EXPECT_EQ(weighPlan({spooned(48)}, {test::grams(30)}, {levelSpoons(), gramScale})[0].teaspoons, 0);
}

TEST(Spoon, APreStockIsWeighedNeverSpooned) {
  TankContent tank;
  tank.tank.volume = Volume::fromLitres(1);
  tank.items.emplace_back();
  tank.items[0].mass = test::grams(0.2);
  EXPECT_TRUE(preStocks({spooned(48)}, {tank}, {levelSpoons()}, Temperature::fromCelsius(12)).empty());
  EXPECT_EQ(preStocks({spooned(48)}, {tank}, {gramScale, levelSpoons()}, Temperature::fromCelsius(12)).size(),
            1u);
}

TEST(Spoon, IsToldInSpoonsThatAreInTheDrawer) {
  EXPECT_EQ(words::levelSpoons(0.125), "⅛ tsp level");
  EXPECT_EQ(words::levelSpoons(2.25), "2¼ tsp level");
  EXPECT_EQ(words::levelSpoons(3), "1 tbsp level");
  EXPECT_EQ(words::levelSpoons(7.5), "2 tbsp + 1½ tsp level");
}

// 16 oz make a pound; no "16.0 oz" is left standing (international avoirdupois, by definition).
TEST(PoundsAndOunces, AreToldTogetherAndCarryOver) {
  words::Measures measures;
  measures.mass = words::MassShown::PoundsAndOunces;
  EXPECT_EQ(measures.text(Mass::fromOunces(19.364)), "1 lb 3.36 oz");
  EXPECT_EQ(measures.text(Mass::fromOunces(31.9999)), "2 lb 0.00 oz");
  EXPECT_EQ(measures.text(Mass::fromOunces(12)), "12.0 oz");
  EXPECT_EQ(measures.text(Mass::fromOunces(15.9999)), "1 lb 0.00 oz");
  EXPECT_EQ(measures.massUnit(), "oz");
  EXPECT_NEAR(measures.in(Mass::fromPounds(2)), 32, 1e-9);
}

} // namespace
} // namespace butte::core
