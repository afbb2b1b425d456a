#include "base/last_result.h"
#include "stock/strength_path.h"

#include <cmath>
#include <gmock/gmock.h>

using namespace butte::core;
using C = Component;

namespace {

Solutes saltpetre(double molPerKg) {
  Solutes s;
  s.of(C::K) = s.of(C::NO3) = molPerKg;
  s.of(C::Phosphate) = 0.1 * molPerKg;
  s.of(C::K) += 0.1 * molPerKg;
  return s;
}

/// What was seen of a solid whose saturation bends upwards with the strength.
std::vector<SaturationSeen> bent(std::initializer_list<double> places) {
  std::vector<SaturationSeen> seen;
  for (const double x : places)
    seen.push_back({x, 2 * (x - 1.234) + 0.1 * (x - 1.234) * (x - 1.234)});
  return seen;
}

} // namespace

TEST(LnMultipleAtSaturation, NothingSeenOrAnIonMissingIsNothing) {
  EXPECT_FALSE(lnMultipleAtSaturation({}));
  EXPECT_FALSE(lnMultipleAtSaturation({{0, -INFINITY}, {1, -INFINITY}}));
}

TEST(LnMultipleAtSaturation, OneLookIsTakenAsASaltOfTwoIons) {
  EXPECT_DOUBLE_EQ(*lnMultipleAtSaturation({{0.5, -1.0}}), 1.0);
}

TEST(LnMultipleAtSaturation, EnclosedItLiesOnTheCurve) {
  const double line =
      1 - bent({1})[0].lnSaturation / (bent({1.6})[0].lnSaturation - bent({1})[0].lnSaturation) * 0.6;
  const double curve = *lnMultipleAtSaturation(bent({0.4, 1.0, 1.6}));
  EXPECT_NEAR(curve, 1.234, 2e-3);
  EXPECT_LT(std::abs(curve - 1.234), 0.2 * std::abs(line - 1.234));
}

TEST(LnMultipleAtSaturation, BeyondWhatWasSeenALineIsDrawn) {
  EXPECT_NEAR(*lnMultipleAtSaturation({{0, -3}, {1, -1}}), 1.5, 1e-12);
  EXPECT_NEAR(*lnMultipleAtSaturation({{0, 1}, {1, 3}}), -0.5, 1e-12);
}

TEST(LnMultipleAtSaturation, WhatHardlyComesNearerIsJudgedFromTheTankAsItStands) {
  EXPECT_DOUBLE_EQ(*lnMultipleAtSaturation({{0, -3}, {1, -2.9}}), 3);
}

TEST(LnMultipleAtSaturation, ASolidThatTurnsBackBetweenStillHasAPlaceWithinTheTwo) {
  const auto at = lnMultipleAtSaturation({{0, -1}, {0.7, -2}, {1.4, 0.5}, {2.1, 0.4}});
  ASSERT_TRUE(at);
  EXPECT_GE(*at, 0.7);
  EXPECT_LE(*at, 1.4);
}

TEST(StrengthPath, ExpectsWhatTheEquilibriumThenFinds) {
  StrengthPath path;
  EXPECT_FALSE(path.expected(0, saltpetre(0.1)));
  for (const double times : {1.0, 2.0, 4.0})
    path.add(std::log(times), *equilibrate(saltpetre(0.1 * times), {}));
  const auto totals = saltpetre(0.3);
  const auto expected = path.expected(std::log(3), totals);
  const auto cold = equilibrate(totals, {});
  ASSERT_TRUE(expected && cold);
  EXPECT_NEAR(expected->lnHydrogen, cold->lnHydrogen, 0.01);
  EXPECT_NEAR(expected->ionicStrength, cold->ionicStrength, 0.01 * cold->ionicStrength);
  EquilibriumConditions conditions;
  conditions.start = &*expected;
  const auto warm = equilibrate(totals, conditions);
  ASSERT_TRUE(warm);
  EXPECT_LE(warm->iterations, cold->iterations);
  EXPECT_NEAR(warm->ph, cold->ph, 1e-9);
}

TEST(StrengthPath, KnowsWhereItHasBeen) {
  StrengthPath path;
  EXPECT_FALSE(path.knows(0));
  path.add(0, *equilibrate(saltpetre(0.1), {}));
  EXPECT_TRUE(path.knows(0));
  EXPECT_TRUE(path.knows(1e-12)) << "nearer than rounding can tell apart";
  EXPECT_FALSE(path.knows(0.1));
}

TEST(LastResult, WorksOutAnewOnlyWhenAskedForSomethingElse) {
  LastResult<int, int> last;
  int times = 0;
  const auto square = [&](int x) {
    ++times;
    return x * x;
  };
  EXPECT_EQ(last.of(3, square), 9);
  EXPECT_EQ(last.of(3, square), 9);
  EXPECT_EQ(times, 1);
  EXPECT_EQ(last.of(4, square), 16);
  EXPECT_EQ(last.of(3, square), 9);
  EXPECT_EQ(times, 3);
}
