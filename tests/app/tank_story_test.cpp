// What a tank's log comes to, without a window: the last calibration of the glass, what is let off every day,
// what a medium brings, other waters, the seasons of either half of the world.
#include "document/formula_file.h"
#include "document/tank_story.h"
#include "formula_json.h"

#include <algorithm>
#include <gtest/gtest.h>

namespace butte::app {
namespace {

using book::TankDid;
using core::Nutrient;

constexpr std::int64_t day = 86400, start = 1'780'000'000; // late in May
constexpr double fullLitres = 300;

class TankStoryTest : public ::testing::Test {
protected:
  void SetUp() override {
    auto document = exchange::readFormulaDocument(*readFormulaFile(":/demo/ormsey.json"));
    ASSERT_TRUE(document);
    const auto shared = std::make_shared<const exchange::FormulaDocument>(std::move(document).value());
    given.formulas[{"f1", 0}] = given.formulas[{"f1", 1}] = shared;
    given.facts.name = "bucket";
    given.facts.full = {"300", "L"};
    given.facts.formulaUid = "f1";
    given.facts.drunk = {"15", "L"};
    given.now = {start + 10 * day};
    given.lines.push_back(line(0, TankDid::Filled, "300"));
  }
  static book::TankLine line(double at, TankDid did, const char* litres = "") {
    book::TankLine out;
    out.vesselUid = "v1";
    out.at = {start + static_cast<std::int64_t>(at * static_cast<double>(day))};
    out.did = did;
    if (*litres) out.volume = {litres, "L"};
    out.formulaUid = "f1";
    out.formulaVersion = 1;
    return out;
  }
  static book::Reading reading(double at, const char* quantity, double value) {
    book::Reading out;
    out.vesselUid = "v1";
    out.quantity = quantity;
    out.at = {start + static_cast<std::int64_t>(at * static_cast<double>(day))};
    out.value = value;
    return out;
  }
  double now(Nutrient nutrient) const { return tankStory(given).now()->of(nutrient).value; }

  TankGiven given;
};

// A glass of 80 % slope is cleaned or replaced: after its reading less is known (common practice).
TEST_F(TankStoryTest, AGlassOfALowSlopeIsTrustedLess) {
  const double expected = tankStory(given).now()->ph->value;
  const auto after = [&](const char* slope) {
    auto told = given;
    auto calibrated = line(8, TankDid::Calibrated);
    calibrated.about = "ph";
    calibrated.slopePercent = {slope, ""};
    told.lines.push_back(calibrated);
    told.readings.push_back(reading(10, "ph", expected));
    const auto ph = *tankStory(told).now()->ph;
    return ph.high - ph.low;
  };
  EXPECT_GT(after("80"), 1.3 * after("99"));
  EXPECT_GT(after("90"), 1.05 * after("99"));
  EXPECT_NEAR(after("96"), after("99"), 1e-9) << "in full down to 95 %";
}

TEST_F(TankStoryTest, WhatIsLetOffEveryDayLeavesDayByDayUntilItEnds) {
  given.facts.low = {"5", "L"};
  const auto litres = [&] { return tankStory(given).now()->litres.value; };
  const double without = litres();
  given.lines.push_back(line(2, TankDid::Bleeds, "10"));
  EXPECT_NEAR(without - litres(), 80, 2) << "eight days of ten litres";
  auto earlier = given;
  earlier.now = {start + 5 * day};
  const auto story = tankStory(earlier);
  EXPECT_NEAR(story.forecast[0].litres.value - story.forecast[1].litres.value, 25, 1.5)
      << "drunk and let off";
  given.lines.push_back(line(5, TankDid::Bleeds, "0"));
  EXPECT_NEAR(without - litres(), 30, 1) << "ended after three";
}

TEST_F(TankStoryTest, AMediumsChargeIsInTheWater) {
  const double before = now(Nutrient::K), calcium = now(Nutrient::Ca);
  auto medium = line(9.99, TankDid::Medium, "30");
  medium.figures.push_back({"K", {"60", "mg/L"}});
  given.lines.push_back(medium);
  EXPECT_NEAR(now(Nutrient::K) - before, 60 * 30 / tankStory(given).now()->litres.value, 0.2);
  EXPECT_NEAR(now(Nutrient::Ca), calcium, 0.1);
}

// A batch was mixed of an older version: its feed counts, but what is weighed now is of the formula as it
// stands.
TEST_F(TankStoryTest, ABatchDoesNotBringItsOldShelfBack) {
  const auto now = given.formulas[{"f1", 0}];
  auto older = std::make_shared<exchange::FormulaDocument>(*now);
  auto& shelf = older->given.request.shelf;
  std::reverse(shelf.begin(), shelf.end());
  given.formulas[{"f1", 7}] = older;
  book::Batch batch;
  batch.formulaUid = "f1";
  batch.formulaVersion = 7;
  batch.litres = 1000;
  given.batches["b1"] = batch;
  const double feed = tankStory(given).request.plan.refill.milligramsPerLitre.of(Nutrient::K);
  const auto& potassium = *std::find_if(now->allProducts.begin(), now->allProducts.end(), [](const auto& p) {
    return p.composition.massFraction.of(Nutrient::K) > 0;
  });
  given.batches["b1"].weights.push_back(
      {potassium.id, potassium.name, "", 100, exchange::Amount{"150", "g"}, ""});
  given.facts.batchUid = "b1";
  const auto story = tankStory(given);
  ASSERT_GE(story.productIds.size(), now->given.request.shelf.size());
  for (std::size_t p = 0; p < now->given.request.shelf.size(); ++p)
    EXPECT_EQ(story.productIds[p], now->given.request.shelf[p].id);
  EXPECT_NEAR(story.request.plan.refill.milligramsPerLitre.of(Nutrient::K) - feed,
              50 * potassium.composition.massFraction.of(Nutrient::K), 0.5)
      << "50 g too much in 1000 L";
}

TEST_F(TankStoryTest, ACropDrinksByTheSeasonOfItsHalfOfTheWorld) {
  given.facts.drunk = {};
  given.facts.crop = "lettuce";
  given.facts.ground = {"4", "m2"};
  const double north = tankStory(given).drunkLPerDay;
  given.facts.southern = true;
  const double south = tankStory(given).drunkLPerDay;
  EXPECT_NEAR(north, 4 * 2.8, 0.5) << "early summer there";
  EXPECT_NEAR(south, 4 * 0.5, 0.2) << "early winter here";
}

TEST_F(TankStoryTest, ADoseInAnotherWaterSaysSo) {
  auto salts = line(5, TankDid::Salts);
  const auto& acid = given.formulas[{"f1", 1}]->given.acid.product;
  ASSERT_TRUE(acid);
  salts.weighed.push_back({acid->id, {"5", "mL"}});
  given.lines.push_back(salts);
  given.readings = {reading(4.9, "ph", 6.9), reading(5.1, "ph", 6.2)};
  ASSERT_EQ(tankStory(given).doses.size(), 1U);
  EXPECT_TRUE(tankStory(given).doses[0].otherWater.empty());
  auto other = std::make_shared<exchange::FormulaDocument>(*given.formulas[{"f1", 1}]);
  other->given.waterPlan.reset();
  other->given.request.water = {};
  other->given.request.water.alkalinityMeqPerL = 0;
  other->waterName = "the barn's rain";
  given.formulas[{"f1", 1}] = other;
  EXPECT_EQ(tankStory(given).doses[0].otherWater, "the barn's rain");
}

} // namespace
} // namespace butte::app
