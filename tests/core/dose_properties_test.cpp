/// There and back again: ratios, vessels, readings and draws on random figures.
#include "dose/doser.h"
#include "dose/draw_down.h"
#include "dose/ratio.h"
#include "dose/reach_reading.h"
#include "dose/reading_line.h"
#include "dose/vessel.h"

#include <gtest/gtest.h>
#include <random>

using namespace butte::core;

namespace {

class DoseProperties : public ::testing::Test {
protected:
  double between(double low, double high) {
    return std::uniform_real_distribution<double>(low, high)(m_random);
  }
  std::mt19937 m_random{31};
};

Conductivity ms(double v) {
  return Conductivity::fromMilliSiemensPerCm(v);
}

} // namespace

TEST_F(DoseProperties, EveryFormOfARatioComesBack) {
  for (int n = 0; n < 300; ++n) {
    const double factor = between(1.01, 3000);
    for (int i = 0; i < ratioFormCount; ++i) {
      const auto form = static_cast<RatioForm>(i);
      EXPECT_NEAR(*factorFrom(form, figureOf(form, factor)), factor, 1e-9 * factor) << ratioKey(form);
    }
  }
}

TEST_F(DoseProperties, TheLineOfAVesselHoldsItsVolume) {
  for (int n = 0; n < 300; ++n) {
    Vessel v;
    v.shape = static_cast<VesselShape>(n % 3);
    v.acrossCm = between(20, 120);
    v.alongCm = between(20, 120);
    v.heightCm = between(30, 150);
    const double height = between(0, v.heightCm);
    const auto volume = volumeAtHeight(v, height);
    ASSERT_TRUE(volume);
    EXPECT_NEAR(*heightForVolume(v, *volume), height, 1e-6);
    const auto higher = volumeAtHeight(v, std::min(v.heightCm, height + 1));
    EXPECT_GE(*higher, *volume) << "more goes in the higher it stands";
    const auto full = volumeAtHeight(v, v.heightCm);
    EXPECT_FALSE(heightForVolume(v, *full * 1.01)) << "what does not go in has no line";
  }
}

TEST_F(DoseProperties, AVesselsKeysComeBack) {
  for (const auto shape : {VesselShape::Round, VesselShape::Rectangular, VesselShape::Tapered})
    EXPECT_EQ(vesselShapeFromKey(vesselShapeKey(shape)), shape);
  EXPECT_FALSE(vesselShapeFromKey("bathtub"));
}

/// Balanced by hand: what stands in the vessel and what is poured in, by volume.
TEST_F(DoseProperties, TheDoseBringsTheVesselToItsReading) {
  for (int n = 0; n < 300; ++n) {
    const double base = between(0.1, 0.8), perMl = between(0.05, 0.25);
    const auto curve = straightCurve(ms(base), ms(base + 10 * perMl), 10);
    const double doseNow = between(0, 8), doseThen = between(0.5, 12);
    const auto volume = Volume::fromLitres(between(10, 500));
    const int stocks = 1 + n % 3;
    const auto way =
        reachReading(volume, ms(base + doseNow * perMl), ms(base + doseThen * perMl), stocks, curve);
    ASSERT_TRUE(way);
    const double stockMl = doseNow * volume.litres() + way->stockEach.millilitres();
    const double litres = volume.litres() + way->water.litres() + stocks * way->stockEach.litres();
    EXPECT_NEAR(stockMl / litres, doseThen, 1e-6 * doseThen);
    EXPECT_TRUE(way->water == Volume{} || way->stockEach == Volume{}) << "never both";
  }
}

TEST_F(DoseProperties, CautiousStepsAddUpToTheWholeDose) {
  for (int n = 0; n < 100; ++n) {
    const auto curve = straightCurve(ms(0.4), ms(2.0), 10);
    const auto volume = Volume::fromLitres(between(20, 300));
    const auto now = ms(between(0.4, 1.2)), target = ms(between(1.3, 2.2));
    const auto whole = reachInSteps(volume, now, target, 2, curve, false);
    const auto steps = reachInSteps(volume, now, target, 2, curve, true);
    ASSERT_TRUE(whole && steps);
    ASSERT_EQ(steps->size(), 2u);
    Volume sum;
    for (const auto& step : *steps)
      sum = sum + step.stockEach;
    EXPECT_NEAR(sum.litres(), whole->back().stockEach.litres(), 1e-6 * volume.litres());
    EXPECT_LT(steps->front().expected, steps->back().expected);
    EXPECT_NEAR(steps->back().expected.milliSiemensPerCm(), target.milliSiemensPerCm(), 1e-6);
  }
}

TEST_F(DoseProperties, ALineThroughReadingsIsFoundAgain) {
  for (int n = 0; n < 100; ++n) {
    const double base = between(0.1, 1), slope = between(0.02, 0.3);
    std::vector<DosedReading> readings;
    for (int i = 0; i < 2 + n % 5; ++i)
      readings.push_back({between(0, 4) + 4 * i, {}});
    for (auto& r : readings)
      r.reading = ms(base + slope * r.x);
    const auto line = fitReadings(readings);
    ASSERT_TRUE(line);
    EXPECT_NEAR(line->base.milliSiemensPerCm(), base, 1e-9);
    EXPECT_NEAR(line->slope, slope, 1e-10);
    EXPECT_NEAR(line->plusMinus.milliSiemensPerCm(), 0, 1e-7);
  }
}

TEST_F(DoseProperties, InjectorsInSeriesComeBack) {
  for (int n = 0; n < 200; ++n) {
    std::vector<double> wanted;
    for (int i = 0; i < 1 + n % 4; ++i)
      wanted.push_back(between(0, 40));
    const auto settings = settingsInSeries(wanted);
    ASSERT_TRUE(settings);
    const auto given = dosesInSeries(*settings);
    for (std::size_t i = 0; i < wanted.size(); ++i) {
      EXPECT_NEAR(given[i], wanted[i], 1e-9);
      EXPECT_GE((*settings)[i], wanted[i] - 1e-9) << "set higher, for later ones thin it";
    }
  }
}

TEST_F(DoseProperties, TheWeakSideIsTheOneThatDrewTooLittle) {
  for (int n = 0; n < 200; ++n) {
    const std::size_t tanks = 2 + static_cast<std::size_t>(n) % 3, weak = static_cast<std::size_t>(n) % tanks;
    const double feed = between(500, 5000);
    std::vector<double> factors, shares(tanks, 1.0);
    shares[weak] = between(0.1, 0.9);
    std::vector<Volume> drawn;
    for (std::size_t t = 0; t < tanks; ++t) {
      factors.push_back(between(50, 300));
      drawn.push_back(Volume::fromLitres(shares[t] * feed / factors[t]));
    }
    for (const bool measured : {true, false}) {
      const auto verdict =
          judgeDrawDown(drawn, factors, measured ? std::optional(Volume::fromLitres(feed)) : std::nullopt);
      ASSERT_TRUE(verdict);
      ASSERT_TRUE(verdict->weak);
      EXPECT_EQ(*verdict->weak, weak);
      EXPECT_NEAR(verdict->ofDue[weak], shares[weak], 1e-9);
      EXPECT_EQ(verdict->dueKnown, measured);
    }
  }
}

TEST_F(DoseProperties, APumpDrawsItsShareOfTheFlow) {
  for (int n = 0; n < 100; ++n) {
    const DosingPump pump{Volume::fromMillilitres(between(1, 100)),
                          Volume::fromMillilitres(between(20, 500))};
    const double flow = between(10, 5000), factor = between(20, 400);
    const auto duty = pumpDuty(pump, Volume::fromLitres(flow), factor);
    ASSERT_TRUE(duty);
    EXPECT_NEAR(duty->drawnPerHour.litres(), flow / factor, 1e-9 * flow);
    EXPECT_NEAR(duty->runsPerHour * pump.perRun.litres(), flow / factor, 1e-9 * flow);
    EXPECT_NEAR(duty->secondsPerHour / 60 * pump.perMinute.litres(), flow / factor, 1e-9 * flow);
  }
}
