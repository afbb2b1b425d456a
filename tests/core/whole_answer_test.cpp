#include "formula/formula_answer.h"
#include "product/shipped.h"
#include "water/shares.h"

#include <gmock/gmock.h>

namespace butte::core {
namespace {

using ::testing::DoubleNear;
using ::testing::ElementsAre;

ShelfProduct shipped(const char* id) {
  return shippedProduct(*findInCatalogue(id));
}

/// Two salts in two tanks, the water blended of a hard and a pure source.
Given demo() {
  Given given;
  for (const auto* id : {"can4", "kno3", "epsom"})
    given.request.shelf.push_back(shipped(id));
  given.request.volume = Volume::fromLitres(1000);
  given.request.rows = {{Nutrient::Ca, 140, 5, 1}, {Nutrient::K, 150, 5, 1}, {Nutrient::Mg, 30, 5, 1}};
  WaterPlan plan;
  WaterPart hard, pure;
  hard.report.rows = {{"Ca", 80}, {"HCO3", 244}};
  hard.share = 1;
  pure.share = 3;
  plan.parts = {hard, pure};
  given.waterPlan = plan;
  given.errors = usualErrors(given.request.shelf);
  given.stock.factor = 100;
  given.stock.tanks = {{"A", Volume::fromLitres(100)}, {"B", Volume::fromLitres(100)}};
  return given;
}

TEST(WholeAnswer, TheWatersPlanIsPartOfIt) {
  const auto answer = compute(demo());
  ASSERT_TRUE(answer);
  ASSERT_EQ(answer->waters.parts.size(), 2u);
  EXPECT_NEAR(answer->waters.water.milligramsPerLitre.of(Nutrient::Ca), 20, 1e-9);
  EXPECT_NEAR(answer->water.milligramsPerLitre.of(Nutrient::Ca), 20, 1e-9)
      << "the base reading is of that water";
}

TEST(WholeAnswer, AWaterThatCanNotBeBlendedIsNamedWithItsPlace) {
  auto given = demo();
  given.waterPlan->parts[0].share = given.waterPlan->parts[1].share = 0;
  const auto none = compute(given);
  ASSERT_FALSE(none);
  EXPECT_EQ(none.problem().where, "water.parts");
  given = demo();
  given.waterPlan->parts[0].report.rows[0].value = -4;
  EXPECT_EQ(compute(given).problem().where.substr(0, 14), "water.parts[0]");
}

TEST(WholeAnswer, ContributionsAddUpToTheFeed) {
  const auto answer = compute(demo());
  ASSERT_TRUE(answer);
  for (const auto n : allNutrients) {
    double sum = 0;
    for (const auto& source : answer->contributions[static_cast<std::size_t>(n)])
      sum += source.milligramsPerLitre;
    EXPECT_NEAR(sum, answer->feed.milligramsPerLitre.of(n), 1e-9 * (1 + sum)) << nutrientKey(n);
  }
  const auto& calcium = answer->contributions[static_cast<std::size_t>(Nutrient::Ca)];
  ASSERT_EQ(calcium.size(), 2u) << "the water and one salt";
  EXPECT_FALSE(calcium[0].product);
  EXPECT_EQ(calcium[1].product, 0u);
}

TEST(WholeAnswer, TanksAreMadeUpWithTheWaterTheyName) {
  auto given = demo();
  given.stock.tanks[0].makeUp = {MakeUp::From::Part, 0};
  given.stock.tanks[1].makeUp = {MakeUp::From::Part, 7}; // taken out since
  const auto answer = compute(given);
  ASSERT_TRUE(answer);
  EXPECT_NEAR(answer->stock.tanks[0].tank.makeUpPerLitre.of(Component::Ca), 0.080 / 40.078, 1e-9);
  EXPECT_EQ(answer->stock.tanks[1].tank.makeUpPerLitre.of(Component::Ca), 0);
}

TEST(WholeAnswer, AMetersReadingsAreDiagnosed) {
  auto given = demo();
  EXPECT_FALSE(compute(given)->readings) << "nothing was read";
  given.dosing.readings = {{0, {}}, {10, {}}};
  const auto plain = compute(given);
  // Read as if the stocks had 90 % of their salts.
  const auto delivery = deliveryOf(given, *plain);
  for (auto& reading : given.dosing.readings)
    reading.reading = expectedReading(delivery, plain->stock, reading.x * 0.9);
  const auto answer = compute(given);
  ASSERT_TRUE(answer->readings);
  EXPECT_EQ(answer->readings->expected.size(), 2u);
  EXPECT_NEAR(*answer->readings->stockStrength, 0.9, 0.01);
  EXPECT_LT(answer->readings->lastGap.read, answer->readings->lastGap.expected);
  EXPECT_FALSE(answer->readings->causes.empty());
  // Ten times too low is no strength of a stock.
  given.dosing.readings[1].reading = given.dosing.readings[0].reading;
  EXPECT_FALSE(compute(given)->readings->stockStrength);
}

TEST(Shares, OneMovesAndTheOthersKeepTheirProportions) {
  const auto near = [](double v) { return DoubleNear(v, 1e-12); };
  EXPECT_THAT(withShareOf({1, 1, 2}, 2, 0.2), ElementsAre(near(0.4), near(0.4), near(0.2)));
  EXPECT_THAT(withShareOf({0, 0, 1}, 2, 0.5), ElementsAre(near(0.25), near(0.25), near(0.5)))
      << "even where they had none";
  EXPECT_THAT(withShareOf({60, 40}, 0, 1), ElementsAre(near(1), near(0)));
  EXPECT_THAT(withShareOf({5}, 0, 1), ElementsAre(near(1)));
}

} // namespace
} // namespace butte::core
