#include "formula/candidates.h"
#include "formula/formula_answer.h"
#include "product/product_doubts.h"
#include "product/shipped.h"
#include "water/shares.h"

#include <algorithm>
#include <cmath>
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

// A kitchen scale reads whole grams: a trace of a tenth of one must not be rounded to nothing.
TEST(WholeAnswer, InScaleStepsNothingIsRoundedAway) {
  auto given = demo();
  given.request.shelf.push_back(shipped("znso4_7"));
  given.request.rows.push_back({Nutrient::Zn, 0.3, 5, 1});
  given.request.volume = Volume::fromLitres(100);
  given.errors = usualErrors(given.request.shelf);
  given.scales = {{"kitchen", Mass::fromGrams(1), Mass::fromGrams(5000)}};
  given.wholeSteps = true;
  const auto answer = compute(given);
  ASSERT_TRUE(answer);
  const auto& grams = answer->solution.grams;
  EXPECT_NEAR(grams.back().grams(), 100 * 0.3e-3 / 0.2274, 0.02);
  EXPECT_NEAR(answer->feed.milligramsPerLitre.of(Nutrient::Zn), 0.3, 0.05);
  for (std::size_t j = 0; j + 1 < grams.size(); ++j)
    EXPECT_NEAR(grams[j].grams(), std::round(grams[j].grams()), 1e-9) << "in whole grams";
}

// What the coarse scale does is told of the weights as they are weighed, not as they were computed.
TEST(WholeAnswer, InScaleStepsTheReasonsAreThoseOfTheRoundedWeights) {
  auto given = demo();
  given.request.volume = Volume::fromLitres(10);
  given.scales = {{"pocket", Mass::fromGrams(1), Mass::fromGrams(500)}};
  for (auto& row : given.request.rows)
    row.tolerancePercent = 1;
  given.wholeSteps = true;
  const auto answer = compute(given);
  ASSERT_TRUE(answer);
  int bySteps = 0;
  for (const auto& reason : answer->solution.reasons) {
    const auto row = std::find_if(given.request.rows.begin(), given.request.rows.end(),
                                  [&](const TargetRow& r) { return r.nutrient == reason.nutrient; });
    if (row == given.request.rows.end()) continue;
    EXPECT_FALSE(row->contains(answer->feed.milligramsPerLitre.of(reason.nutrient)))
        << "a reason for what stands in its band";
    if (reason.kind != ReasonKind::ScaleSteps) continue;
    ++bySteps;
    EXPECT_NEAR(reason.has, answer->feed.milligramsPerLitre.of(reason.nutrient), 1e-9);
    EXPECT_EQ(reason.over, reason.has > reason.wants);
    EXPECT_FALSE(reason.products.empty());
  }
  EXPECT_GT(bySteps, 0) << "a gram in ten litres is more than one percent of a band";
  given.wholeSteps = false;
  const auto exact = compute(given);
  ASSERT_TRUE(exact);
  for (const auto& reason : exact->solution.reasons)
    EXPECT_NE(reason.kind, ReasonKind::ScaleSteps);
}

TEST(Candidates, WhatHardlyDissolvesAndPlainIronAreNotForBuying) {
  const auto candidates = catalogueCandidates({});
  const auto has = [&](const char* id) {
    return std::any_of(candidates.begin(), candidates.end(),
                       [&](const ShelfProduct& p) { return p.id == id; });
  };
  EXPECT_FALSE(has("gypsum")) << "no product for a stock";
  EXPECT_FALSE(has("feso4_7")) << "rusts out above pH 5";
  EXPECT_TRUE(has("fedtpa11"));
  EXPECT_TRUE(has("kno3"));
  EXPECT_TRUE(has("sop"));
}

TEST(ProductDoubts, WhatALabelLeavesOutMakesTheConductivityUnsure) {
  ShelfProduct bag;
  bag.id = "bag";
  bag.composition = compositionFromLabel({{"N_NO3", 7}, {"K2O", 46}})->composition;
  const double gap = (46 * 0.83013 / 39.098 - 7 / 14.007) * 10; // meq in a gram
  EXPECT_NEAR(unstatedMeqPerGram(bag), gap, 0.02);
  const auto feed = mix(pureWater(), {bag}, {Mass::fromGrams(2)}, Volume::fromLitres(1));
  EXPECT_NEAR(feed.unstatedMeqPerLitre, 2 * gap, 0.05);
  // Had it been sulfate, the meter would read that much more (within a fifth).
  ShelfProduct sulfate = bag;
  sulfate.composition =
      compositionFromLabel({{"N_NO3", 7}, {"K2O", 46}, {"SO3", gap / 20 * 80.06}})->composition;
  EXPECT_EQ(unstatedMeqPerGram(sulfate), 0);
  const auto whole = mix(pureWater(), {sulfate}, {Mass::fromGrams(2)}, Volume::fromLitres(1));
  const double more = (whole.conductivity - feed.conductivity).milliSiemensPerCm();
  EXPECT_LE(more, feed.unstatedConductivity().milliSiemensPerCm());
  EXPECT_GT(more, 0.6 * feed.unstatedConductivity().milliSiemensPerCm());
  EXPECT_EQ(unstatedMeqPerGram(shipped("kno3")), 0) << "a formula leaves nothing out";
}

TEST(ProductDoubts, ALabelThatLacksAnionsSaysSo) {
  const std::vector<LabelRow> whole{{"N_NO3", 13.7}, {"K2O", 46}}, half{{"N_NO3", 7}, {"K2O", 46}};
  const auto doubted = [](const std::vector<LabelRow>& label) -> std::optional<ProductDoubtFound> {
    ShelfProduct product;
    product.id = "bag";
    product.composition = compositionFromLabel(label)->composition;
    for (const auto& found : productDoubts(product, label, {}))
      if (found.doubt == ProductDoubt::LabelUnbalanced) return found;
    return std::nullopt;
  };
  EXPECT_FALSE(doubted(whole));
  const auto found = doubted(half);
  ASSERT_TRUE(found);
  EXPECT_NEAR(found->figure, 46 * 0.83013 / 100 * 1000 / 39.098, 0.05);
  EXPECT_EQ(found->other, "5");
}

} // namespace
} // namespace butte::core
