#include "dose/doser.h"
#include "dose/draw_down.h"
#include "dose/ratio.h"
#include "dose/vessel.h"

#include <gmock/gmock.h>

using namespace butte::core;

namespace {

Volume litres(double v) {
  return Volume::fromLitres(v);
}

} // namespace

TEST(Ratio, FormsOfOneDilution) {
  EXPECT_DOUBLE_EQ(figureOf(RatioForm::OneTo, 100), 100);
  EXPECT_DOUBLE_EQ(figureOf(RatioForm::Percent, 100), 1);
  EXPECT_DOUBLE_EQ(figureOf(RatioForm::MlPerLitre, 100), 10);
  EXPECT_NEAR(figureOf(RatioForm::MlPerUsGallon, 100), 37.85411784, 1e-9);
  EXPECT_NEAR(figureOf(RatioForm::MlPerImperialGallon, 100), 45.4609, 1e-9);
  // A fluid ounce in a US gallon is 1:128 by definition of the gallon (231 cubic inches, 128 fluid ounces).
  EXPECT_NEAR(*factorFrom(RatioForm::FluidOuncesPerUsGallon, 1), 128, 1e-9);
  for (int form = 0; form < ratioFormCount; ++form) {
    for (const double factor : {1.5, 64.0, 100.0, 128.0, 500.0})
      EXPECT_NEAR(*factorFrom(static_cast<RatioForm>(form), figureOf(static_cast<RatioForm>(form), factor)),
                  factor, 1e-9);
  }
}

TEST(Ratio, NonsenseIsNamed) {
  EXPECT_EQ(factorFrom(RatioForm::Percent, 0).problem().where, "percent");
  EXPECT_FALSE(factorFrom(RatioForm::OneTo, -3));
  EXPECT_FALSE(factorFrom(RatioForm::Percent, 150));
  EXPECT_FALSE(factorFrom(RatioForm::MlPerLitre, std::nan("")));
}

// Common practice (trade sums): 120 g in 500 mL at 10 mL per US gallon is 2.4 g per gallon, enough for 50
// gallons; 1 lb per gallon at 20 mL per gallon is 2.4 g per gallon.
TEST(Ratio, TheTradesOwnSums) {
  const double factor = *factorFrom(RatioForm::MlPerUsGallon, 10);
  const auto perLitreOfStock = Mass::fromGrams(120) / Volume::fromMillilitres(500);
  EXPECT_NEAR((perLitreOfStock / factor).gramsPerUsGallon(), 2.4, 1e-9);
  EXPECT_NEAR((Volume::fromMillilitres(500) * factor).usGallons(), 50, 1e-9);
  const auto pound = Mass::fromPounds(1) / Volume::fromUsGallons(1);
  EXPECT_NEAR((pound / *factorFrom(RatioForm::MlPerUsGallon, 20)).gramsPerUsGallon(), 2.4, 0.01);
  // 31.4 lb and 7.4 lb in 50 US gallons: 75.2 and 17.7 g/L.
  EXPECT_NEAR((Mass::fromPounds(31.4) / Volume::fromUsGallons(50)).gramsPerLitre(), 75.2, 0.1);
  EXPECT_NEAR((Mass::fromPounds(7.4) / Volume::fromUsGallons(50)).gramsPerLitre(), 17.7, 0.1);
}

TEST(Doser, RunsAndSecondsOfAPump) {
  DosingPump pump{Volume::fromMillilitres(25), Volume::fromMillilitres(100)};
  const auto duty = pumpDuty(pump, litres(300), 100);
  ASSERT_TRUE(duty);
  EXPECT_NEAR(duty->drawnPerHour.litres(), 3, 1e-12);
  EXPECT_NEAR(duty->runsPerHour, 120, 1e-9);
  EXPECT_NEAR(duty->secondsPerHour, 1800, 1e-9);
  EXPECT_EQ(pumpDuty({Volume{}, {}}, litres(1), 100).problem().where, "per_run");
  EXPECT_EQ(pumpDuty(pump, litres(-1), 100).problem().where, "feed_per_hour");
}

TEST(Doser, TwoPumpsOfOneSettingGiveByTheirCalibration) {
  const auto draws = drawsOfEqualRuns({{Volume::fromMillilitres(10), {}}, {Volume::fromMillilitres(9), {}}});
  EXPECT_THAT(draws, ::testing::ElementsAre(1.0, ::testing::DoubleEq(0.9)));
}

TEST(Doser, InjectorsInSeriesThinWhatCameBefore) {
  const auto doses = dosesInSeries({10, 10, 5});
  // A litre goes in; 10 mL, then 10 mL per litre of the mixture, then 5.
  const double finished = 1.010 * 1.010 * 1.005;
  EXPECT_NEAR(doses[0], 10 / finished, 1e-9);
  EXPECT_NEAR(doses[1], 10 * 1.010 / finished, 1e-9);
  EXPECT_NEAR(doses[2], 5 * 1.010 * 1.010 / finished, 1e-9);
  const auto settings = settingsInSeries(doses);
  ASSERT_TRUE(settings);
  EXPECT_THAT(*settings, ::testing::Pointwise(::testing::DoubleNear(1e-9), std::vector<double>{10, 10, 5}));
  EXPECT_FALSE(settingsInSeries({600, 500}));
}

TEST(Doser, AnInjectorIsCalibratedByWhatItDrew) {
  EXPECT_NEAR(*factorFromDraw(litres(0.92), litres(100)), 108.7, 0.05);
  EXPECT_EQ(factorFromDraw(litres(0), litres(100)).problem().where, "drawn");
  EXPECT_EQ(factorFromDraw(litres(2), litres(1)).problem().where, "feed");
}

TEST(Vessel, TheLineForAVolume) {
  // A drum of 57 cm inside: 2.55 L per cm, so 190 L stand at 74.5 cm.
  const Vessel drum{VesselShape::Round, 57, 0, 88};
  EXPECT_NEAR(*heightForVolume(drum, litres(190)), 190000 / (3.14159265 / 4 * 57 * 57), 1e-6);
  EXPECT_NEAR(volumeAtHeight(drum, *heightForVolume(drum, litres(190)))->litres(), 190, 1e-9);
  const Vessel trough{VesselShape::Rectangular, 50, 80, 0};
  EXPECT_NEAR(*heightForVolume(trough, litres(100)), 25, 1e-9);
  const Vessel pail{VesselShape::Tapered, 26, 30, 36};
  // Frustum of a cone: pi h (a2 + ab + b2)/12.
  EXPECT_NEAR(volumeAtHeight(pail, 36)->litres(), 3.14159265 * 36 * (26 * 26 + 26 * 30 + 30 * 30) / 12 / 1000,
              1e-6);
  EXPECT_NEAR(volumeAtHeight(pail, *heightForVolume(pail, litres(10)))->litres(), 10, 1e-6);
}

TEST(Vessel, WhatCantBeIsNamed) {
  EXPECT_EQ(heightForVolume({VesselShape::Round, 0, 0, 0}, litres(1)).problem().where, "across_cm");
  EXPECT_EQ(heightForVolume({VesselShape::Rectangular, 50, -1, 0}, litres(1)).problem().where, "along_cm");
  EXPECT_EQ(heightForVolume({VesselShape::Tapered, 26, 30, 0}, litres(1)).problem().where, "height_cm");
  EXPECT_EQ(heightForVolume({VesselShape::Round, 57, 0, 88}, litres(500)).problem().where, "volume");
  EXPECT_EQ(volumeAtHeight({VesselShape::Round, 57, 0, 88}, 90).problem().where, "height_cm");
}

TEST(DrawDown, UnequalLevelsNameTheWeakSide) {
  const auto even = judgeDrawDown({litres(20), litres(19.6)}, {100, 100}, litres(2000));
  ASSERT_TRUE(even);
  EXPECT_FALSE(even->weak);
  EXPECT_NEAR(even->ofDue[0], 1, 1e-9);
  const auto weak = judgeDrawDown({litres(20), litres(14)}, {100, 100}, {});
  EXPECT_EQ(weak->weak, std::optional<std::size_t>(1));
  EXPECT_FALSE(weak->shut);
  EXPECT_NEAR(weak->ofDue[1], 0.7, 1e-9);
  const auto shut = judgeDrawDown({litres(0.2), litres(30)}, {100, 100}, litres(2000));
  EXPECT_EQ(shut->weak, std::optional<std::size_t>(0));
  EXPECT_TRUE(shut->shut);
  EXPECT_NEAR(shut->ofDue[1], 1.5, 1e-9) << "a controller makes the other side give more";
  // Tanks of unequal ratio draw unequally by right.
  EXPECT_FALSE(judgeDrawDown({litres(20), litres(4)}, {100, 500}, {})->weak);
  EXPECT_FALSE(judgeDrawDown({litres(0), litres(0)}, {100, 100}, {}));
  EXPECT_FALSE(judgeDrawDown({litres(1)}, {100}, {}));
  EXPECT_FALSE(judgeDrawDown({litres(-1), litres(1)}, {100, 100}, {}));
}
