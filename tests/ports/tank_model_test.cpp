// The stand-in tank behaves by the model of core/tank, and its meters fail as meters do.
#include "model/tank_model.h"

#include <gtest/gtest.h>

#include <cmath>

namespace butte::sim {
namespace {

constexpr double day = 86400;

TEST(TheStandInTank, IsDrunkByDayAndRefilledAtItsMark) {
  TankModel tank;
  const auto start = tank.truth();
  EXPECT_NEAR(start.ph, 5.8, 0.05);
  EXPECT_NEAR(start.litres, 1000, 1e-9);
  tank.advance(day / 4);
  const double night = 1000 - tank.truth().litres;
  tank.advance(day / 2);
  const double light = 1000 - night - tank.truth().litres;
  EXPECT_GT(light, 8 * night);
  tank.advance(day / 4);
  EXPECT_NEAR(1000 - tank.truth().litres, 60, 1) << "the day's mean is what was asked for";
  tank.advance(5 * day);
  EXPECT_EQ(tank.refills(), 1);
  EXPECT_GT(tank.truth().litres, 700);
}

TEST(TheStandInTank, KeepsTheMassOfWhatPlantsDoNotTake) {
  TankKind kind;
  kind.refills = false;
  kind.crop.clear(); // plants that only drink
  TankModel tank(kind);
  const double potassium = tank.content().milligrams.of(core::Nutrient::K);
  tank.advance(3 * day);
  EXPECT_NEAR(tank.content().milligrams.of(core::Nutrient::K), potassium, 1e-9 * potassium);
  EXPECT_GT(tank.truth().msPerCm, 1.1 * TankModel(kind).truth().msPerCm) << "what stays grows stronger";
}

TEST(TheStandInTank, ItsPensDriftAndItsFloatHangs) {
  TankKind kind;
  kind.penPhPerDay = 0.1;
  kind.penEcSharePerDay = -0.02;
  kind.levelSticksAfterDays = 2;
  kind.refills = false;
  TankModel tank(kind, 3);
  tank.advance(5 * day);
  const auto truth = tank.truth(), shown = tank.read();
  EXPECT_NEAR(shown.ph - truth.ph, 0.5, 0.05);
  EXPECT_NEAR(shown.msPerCm / truth.msPerCm, 0.9, 0.02);
  const double stuck = shown.litres;
  tank.advance(day);
  EXPECT_EQ(tank.read().litres, stuck);
  EXPECT_LT(tank.truth().litres, truth.litres);
}

TEST(TheStandInTank, WildFiguresComeAsOftenAsAsked) {
  TankKind kind;
  kind.wildShare = 0.1;
  TankModel tank(kind, 5);
  int wild = 0;
  for (int i = 0; i < 1000; ++i) {
    const auto f = tank.read();
    wild += f.msPerCm == 0 || f.ph == 14 || f.celsius == -127 || f.litres > 1500;
  }
  EXPECT_NEAR(wild, 100, 35);
}

} // namespace
} // namespace butte::sim
