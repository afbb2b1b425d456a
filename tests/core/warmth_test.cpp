// How warm a tank is and gets, and what oxygen its water holds.
#include "tank/warmth.h"

#include <gtest/gtest.h>

namespace butte::core {
namespace {

Temperature at(double celsius) {
  return Temperature::fromCelsius(celsius);
}

TEST(Warmth, HotAndColdBlend) {
  EXPECT_NEAR(*hotShareFor(at(60), at(10), at(20)), 0.2, 1e-12);
  EXPECT_FALSE(hotShareFor(at(60), at(10), at(5)));
  EXPECT_FALSE(hotShareFor(at(60), at(10), at(70)));
  EXPECT_EQ(hotShareFor(at(10), at(10), at(10)), 0.0);
  EXPECT_FALSE(hotShareFor(at(10), at(10), at(12)));
}

// By hand: 100 L by 10 K are 4180 kJ, 1.161 kWh.
TEST(Warmth, AHeaterTakesItsHours) {
  EXPECT_NEAR(*heaterHours(Volume::fromLitres(100), at(10), at(20), 500), 4180 / (0.5 * 3600), 1e-9);
  EXPECT_FALSE(heaterHours(Volume::fromLitres(100), at(20), at(10), 500));
  EXPECT_FALSE(heaterHours(Volume::fromLitres(100), at(10), at(20), 0));
}

TEST(Warmth, AVesselFollowsTheAir) {
  const auto rate = followingRatePerHour(at(10), at(15), at(20), 6);
  ASSERT_TRUE(rate);
  EXPECT_NEAR(warmedTo(at(10), at(20), *rate, 6).celsius(), 15, 1e-9);
  EXPECT_NEAR(warmedTo(at(10), at(20), *rate, 12).celsius(), 17.5, 1e-9) << "half of the gap every six hours";
  EXPECT_FALSE(followingRatePerHour(at(10), at(8), at(20), 6));
  EXPECT_FALSE(followingRatePerHour(at(10), at(25), at(20), 6));
}

// Standard Methods 4500-O, table of oxygen in fresh water at 101.3 kPa (from memory).
TEST(Warmth, OxygenAsTheHandbooksHaveIt) {
  EXPECT_NEAR(oxygenAtSaturation(at(0)), 14.62, 0.02);
  EXPECT_NEAR(oxygenAtSaturation(at(10)), 11.29, 0.02);
  EXPECT_NEAR(oxygenAtSaturation(at(20)), 9.09, 0.02);
  EXPECT_NEAR(oxygenAtSaturation(at(25)), 8.26, 0.02);
  EXPECT_NEAR(oxygenAtSaturation(at(30)), 7.56, 0.02);
}

} // namespace
} // namespace butte::core
