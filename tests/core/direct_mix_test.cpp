// Salts straight into one vessel: order, water, and what the meter shows after each (formula/direct_mix.h).
#include "formula/direct_mix.h"
#include "support/shelf_builder.h"

#include <gtest/gtest.h>

namespace butte::core {
namespace {

class DirectMixTest : public ::testing::Test {
protected:
  DirectMixTest() {
    for (const auto* formula : {"Ca(NO3)2·4H2O", "MgSO4·7H2O", "KH2PO4", "KNO3"})
      shelf.push_back(test::salt(formula));
    water.milligramsPerLitre.add(Nutrient::Ca, 20);
    water.milligramsPerLitre.add(Nutrient::Cl, 35.45 * 20 / 20.04);
    water.alkalinityMeqPerL = 0;
    alone = mix(water, {}, {}, Volume::fromLitres(1));
    feed = mix(water, shelf, grams, vessel);
  }
  Result<DirectMix> direct(const DirectPlan& plan = {}) {
    return mixDirectly(alone, shelf, grams, vessel, plan);
  }
  Water water;
  std::vector<ShelfProduct> shelf;
  std::vector<Mass> grams{Mass::fromGrams(16), Mass::fromGrams(9), Mass::fromGrams(4), Mass::fromGrams(7)};
  Volume vessel = Volume::fromUsGallons(5);
  MixResult alone, feed;
};

// Common practice: phosphates first, calcium nitrate always last in one vessel of thin feed.
TEST_F(DirectMixTest, PhosphateGoesInFirstAndCalciumLast) {
  const auto out = direct();
  ASSERT_TRUE(out);
  ASSERT_EQ(out->steps.size(), 4U);
  EXPECT_EQ(shelf[out->steps.front().product].id, "KH2PO4");
  EXPECT_EQ(shelf[out->steps.back().product].id, "Ca(NO3)2·4H2O");
}

// Two schools (common practice): acid when the meter has spoken, or before anything it could harm.
TEST_F(DirectMixTest, AcidGoesLastOrFirstAndTheFeedIsTheSame) {
  shelf.push_back(test::salt("HNO3"));
  grams.push_back(Mass::fromGrams(2));
  DirectPlan first;
  first.acid = AcidTurn::First;
  const auto last = direct(), early = direct(first);
  ASSERT_TRUE(last && early);
  EXPECT_EQ(shelf[last->steps.back().product].id, "HNO3");
  EXPECT_EQ(shelf[early->steps.front().product].id, "HNO3");
  EXPECT_EQ(shelf[early->steps[1].product].id, "KH2PO4");
  EXPECT_EQ(shelf[early->steps.back().product].id, "Ca(NO3)2·4H2O");
  EXPECT_NEAR(early->steps.back().after / last->steps.back().after, 1, 1e-9);
}

TEST_F(DirectMixTest, NineTenthsOfTheWaterComeFirstAndTheRestMakesUpTheMark) {
  const auto out = direct();
  ASSERT_TRUE(out);
  EXPECT_NEAR(out->pour.usGallons(), 4.5, 1e-12);
  EXPECT_NEAR(out->toMark.usGallons(), 0.5, 1e-12);
  EXPECT_EQ(out->mixingVolume, out->pour);
}

// The readings are those that mix() computes of the same salts in so much water, one more each time.
TEST_F(DirectMixTest, AfterEachSaltTheMeterShowsWhatIsInIt) {
  const auto out = direct();
  ASSERT_TRUE(out);
  std::vector<Mass> soFar(grams.size());
  EXPECT_NEAR(out->beforeSalts.milliSiemensPerCm(), alone.conductivity.milliSiemensPerCm(), 1e-9);
  for (const auto& step : out->steps) {
    soFar[step.product] = step.mass;
    const auto wanted = mix(water, shelf, soFar, out->mixingVolume).conductivity;
    EXPECT_NEAR(step.after / wanted, 1, 0.002) << shelf[step.product].id;
  }
  EXPECT_GT(out->steps.back().after, feed.conductivity); // the last water is not in yet
}

TEST_F(DirectMixTest, WaterKnownByItsMeterAloneCountsInEveryReading) {
  Water metered;
  metered.compositionKnown = false;
  metered.conductivityMsPerCm = 0.5;
  const auto base = mix(metered, {}, {}, Volume::fromLitres(1));
  const auto out = mixDirectly(base, shelf, grams, vessel, {});
  ASSERT_TRUE(out);
  EXPECT_NEAR(out->beforeSalts.milliSiemensPerCm(), 0.5, 1e-3);
  const auto whole = mix(metered, shelf, grams, out->mixingVolume).conductivity;
  EXPECT_NEAR(out->steps.back().after / whole, 1, 0.002);
}

// Half a vessel of the same feed at full strength: half of everything is missing.
TEST_F(DirectMixTest, ToppedUpAFullStrengthHalfVesselTakesHalfTheSalts) {
  for (const auto& reading : {std::optional<Conductivity>(), std::optional(feed.conductivity)}) {
    const auto out = direct({vessel * 0.5, reading});
    ASSERT_TRUE(out);
    EXPECT_NEAR(out->presentStrength, 1, 1e-4);
    for (std::size_t j = 0; j < grams.size(); ++j)
      EXPECT_NEAR(out->grams[j] / grams[j], 0.5, 1e-4);
    EXPECT_NEAR(out->pour / vessel, 0.4, 1e-9);
    EXPECT_EQ(out->drain, Volume{});
  }
}

// Half strength, told by the meter: mass balance says that three quarters are missing.
TEST_F(DirectMixTest, ToppedUpAHalfStrengthHalfVesselTakesThreeQuarters) {
  std::vector<Mass> half(grams);
  for (auto& g : half)
    g = g * 0.5;
  const auto reading = mix(water, shelf, half, vessel).conductivity;
  const auto out = direct({vessel * 0.5, reading});
  ASSERT_TRUE(out);
  EXPECT_NEAR(out->presentStrength, 0.5, 0.002);
  EXPECT_NEAR(out->grams[0] / grams[0], 0.75, 0.002);
}

// What is too strong for the mark is let out until water alone makes it right.
TEST_F(DirectMixTest, WhatIsTooStrongIsLetOutAndOnlyWaterFollows) {
  std::vector<Mass> twice(grams);
  for (auto& g : twice)
    g = g * 2;
  const auto out = direct({vessel * 0.8, mix(water, shelf, twice, vessel).conductivity});
  ASSERT_TRUE(out);
  EXPECT_TRUE(out->steps.empty());
  const auto stays = out->present - out->drain;
  EXPECT_NEAR(stays / vessel, 0.5, 0.002);
  EXPECT_NEAR((stays + out->pour) / vessel, 1, 1e-9);
  EXPECT_EQ(out->toMark, Volume{});
}

// Stronger, but little of it: it stays, and what is missing goes in.
TEST_F(DirectMixTest, WhatIsStrongerButFitsStays) {
  std::vector<Mass> twice(grams);
  for (auto& g : twice)
    g = g * 2;
  const auto out = direct({vessel * 0.25, mix(water, shelf, twice, vessel).conductivity});
  ASSERT_TRUE(out);
  EXPECT_EQ(out->drain, Volume{});
  EXPECT_NEAR(out->grams[1] / grams[1], 0.5, 0.002);
}

TEST_F(DirectMixTest, ALevelAboveNineTenthsTakesTheSaltsAsItStands) {
  const auto out = direct({vessel * 0.95, alone.conductivity});
  ASSERT_TRUE(out);
  EXPECT_EQ(out->pour, Volume{});
  EXPECT_NEAR(out->toMark / vessel, 0.05, 1e-9);
  EXPECT_NEAR(out->grams[0] / grams[0], 1, 1e-6);
}

TEST_F(DirectMixTest, WhatCantBeIsRefusedByItsPlace) {
  const auto over = direct({vessel * 1.5, std::nullopt});
  ASSERT_FALSE(over);
  EXPECT_EQ(over.problem().where, "direct.present");
  const auto below = direct({vessel * 0.5, alone.conductivity * 0.5});
  ASSERT_FALSE(below);
  EXPECT_EQ(below.problem().code, ProblemCode::OutOfRange);
  EXPECT_EQ(below.problem().where, "direct.reading");
}

TEST_F(DirectMixTest, WithoutSaltsItIsWaterAlone) {
  grams.assign(grams.size(), Mass{});
  const auto out = direct();
  ASSERT_TRUE(out);
  EXPECT_TRUE(out->steps.empty());
  EXPECT_EQ(out->pour, vessel);
}

} // namespace
} // namespace butte::core
