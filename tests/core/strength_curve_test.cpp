#include "stock/salt_solids.h"
#include "stock/strength_curve.h"

#include <cmath>
#include <gmock/gmock.h>

using namespace butte::core;
using C = Component;

namespace {

Solutes saltpetre(double molPerKg) {
  Solutes s;
  s.of(C::K) = s.of(C::NO3) = molPerKg;
  return s;
}

/// A solid of potassium and nitrate with the constant that is asked for.
SolidPhase crystal(double lnSolubility) {
  return {{0, 0, {{static_cast<std::size_t>(C::K), 1}, {static_cast<std::size_t>(C::NO3), 1}}}, lnSolubility};
}

StrengthCurve curveOf(std::vector<SolidPhase> solids, Solutes water = {}) {
  return {saltpetre(1), water, Temperature::fromCelsius(25), std::move(solids)};
}

} // namespace

TEST(StrengthCurve, APointIsWhatTheEquilibriumThereSays) {
  auto curve = curveOf({crystal(-1)});
  for (const double strength : {0.01, 0.5, 3.0}) {
    EquilibriumConditions conditions;
    const auto settled = equilibrate(saltpetre(strength), conditions);
    ASSERT_TRUE(settled);
    const auto point = curve.at(std::log(strength));
    ASSERT_TRUE(point);
    EXPECT_NEAR(point->lnSaturation[0], settled->lnIonProduct(crystal(0).dissolved) + 1, 1e-6);
    EXPECT_NEAR(point->ph, settled->ph, 1e-6);
  }
}

TEST(StrengthCurve, TheOrderOfTheLooksChangesNothing) {
  auto up = curveOf({crystal(-1)}), down = curveOf({crystal(-1)});
  for (const double ln : {-3.0, -1.0, 0.0, 1.0})
    up.at(ln);
  for (const double ln : {1.0, 0.5})
    down.at(ln);
  EXPECT_NEAR(up.at(0.3)->lnSaturation[0], down.at(0.3)->lnSaturation[0], 1e-8);
}

TEST(FirstFall, IsWhereTheFirstIsJustSaturated) {
  auto curve = curveOf({crystal(-0.5), crystal(0.3), crystal(-6)});
  const auto first = firstFall(curve, 2, {true, true, true});
  ASSERT_TRUE(first && first->solid);
  EXPECT_EQ(*first->solid, 2u);
  EXPECT_NEAR(first->at.lnSaturation[2], 0, 1e-8);
  EXPECT_LT(first->at.lnSaturation[0], 0);
  EXPECT_GT(first->slope[2], 1);
}

TEST(FirstFall, WhatIsNotToBeLookedAtIsNoCeiling) {
  auto curve = curveOf({crystal(-0.5), crystal(-6)});
  const auto first = firstFall(curve, 2, {true, false});
  ASSERT_TRUE(first && first->solid);
  EXPECT_EQ(*first->solid, 0u);
  EXPECT_FALSE(first->counts[1]);
}

TEST(FirstFall, WhatFallsInTheThinnestIsTheWatersOwn) {
  Solutes hard;
  hard.of(C::Ca) = 0.005;
  hard.of(C::SO4) = 0.005;
  const SolidPhase never{
      {0, 0, {{static_cast<std::size_t>(C::Ca), 1}, {static_cast<std::size_t>(C::SO4), 1}}}, -30};
  auto curve = curveOf({never, crystal(-0.5)}, hard);
  const auto first = firstFall(curve, 2, {true, true});
  ASSERT_TRUE(first && first->solid);
  EXPECT_EQ(*first->solid, 1u);
  EXPECT_FALSE(first->counts[0]);
  EXPECT_TRUE(first->counts[1]);
}

TEST(FirstFall, NothingFallsOfWhatDissolvesAtAnyStrength) {
  auto curve = curveOf({crystal(40)});
  const auto first = firstFall(curve, 2, {true});
  ASSERT_TRUE(first);
  EXPECT_FALSE(first->solid);
  EXPECT_LT(first->at.lnSaturation[0], 0);
}

// The unit in which the strength is counted is no part of the answer.
TEST(FirstFall, TheUnitOfStrengthChangesNothing) {
  auto one = curveOf({crystal(-0.5)});
  StrengthCurve thousandth(saltpetre(0.001), {}, Temperature::fromCelsius(25), {crystal(-0.5)});
  const auto a = firstFall(one, 2, {true}), b = firstFall(thousandth, 0.002, {true});
  ASSERT_TRUE(a && b);
  EXPECT_NEAR(a->at.lnStrength, b->at.lnStrength + std::log(0.001), 1e-9);
}
