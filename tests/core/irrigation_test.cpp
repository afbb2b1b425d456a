// A day's watering: how much, in how many turns.
#include "tank/irrigation.h"

#include <gtest/gtest.h>
#include <numeric>

namespace butte::core {
namespace {

constexpr double drunk = 300;

IrrigationRequest usual() {
  return {drunk, 0.25, Volume::fromLitres(40), 8, 16};
}

// Common practice: 25 % drain over what is given, so 300 L drunk want 400 L.
TEST(Irrigation, GivesWhatIsDrunkAndWhatDrains) {
  const auto plan = irrigationPlan(usual());
  ASSERT_TRUE(plan);
  EXPECT_NEAR(plan->givenLPerDay, 400, 1e-9);
  ASSERT_EQ(plan->startHours.size(), 10U);
  EXPECT_NEAR(plan->each.litres(), 40, 1e-9);
  EXPECT_DOUBLE_EQ(plan->startHours.front(), 8);
  EXPECT_DOUBLE_EQ(plan->startHours.back(), 16);
}

TEST(Irrigation, TurnsAreEvenAndNoLargerThanTheShot) {
  for (int i = 1; i <= 200; ++i) {
    auto request = usual();
    request.drunkLPerDay = 3.7 * i;
    const auto plan = irrigationPlan(request);
    ASSERT_TRUE(plan);
    EXPECT_LE(plan->each.litres(), 40 + 1e-6);
    EXPECT_NEAR(plan->each.litres() * static_cast<double>(plan->startHours.size()), plan->givenLPerDay, 1e-9);
    EXPECT_GT(plan->each.litres() * static_cast<double>(plan->startHours.size() + 1), plan->givenLPerDay);
    for (std::size_t turn = 2; turn < plan->startHours.size(); ++turn)
      EXPECT_NEAR(plan->startHours[turn] - plan->startHours[turn - 1],
                  plan->startHours[1] - plan->startHours[0], 1e-9);
  }
}

TEST(Irrigation, OneTurnIsAtTheFirstHour) {
  auto request = usual();
  request.drunkLPerDay = 3;
  const auto plan = irrigationPlan(request);
  ASSERT_TRUE(plan);
  EXPECT_EQ(plan->startHours, std::vector<double>{8});
}

TEST(Irrigation, WhatCantBeHasNoPlan) {
  const auto without = [](auto change) {
    auto request = usual();
    change(request);
    return !irrigationPlan(request);
  };
  EXPECT_TRUE(without([](auto& r) { r.drunkLPerDay = 0; }));
  EXPECT_TRUE(without([](auto& r) { r.drunkLPerDay = NAN; }));
  EXPECT_TRUE(without([](auto& r) { r.drainShare = 1; }));
  EXPECT_TRUE(without([](auto& r) { r.drainShare = -0.1; }));
  EXPECT_TRUE(without([](auto& r) { r.shot = {}; }));
  EXPECT_TRUE(without([](auto& r) { r.lastHour = 7; }));
  EXPECT_TRUE(without([](auto& r) { r.lastHour = 25; }));
  EXPECT_TRUE(without([](auto& r) { r.shot = Volume::fromMillilitres(1); }));
}

} // namespace
} // namespace butte::core
