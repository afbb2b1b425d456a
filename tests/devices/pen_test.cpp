// Lines of EC and pH pens (shapes: common practice), when they have come to rest, and the stand-in's physics.
#include "model/sim_bench.h"
#include "pen/pen_line.h"
#include "pen/pen_watch.h"
#include "scale/scale_line.h"

#include <gtest/gtest.h>

namespace butte::devices {
namespace {

TEST(PenLines, AreRead) {
  const auto one = readPenLine("EC 1.45 mS/cm 21.3 C");
  EXPECT_NEAR(one.conductivity->milliSiemensPerCm(), 1.45, 1e-12);
  EXPECT_NEAR(one.temperature->celsius(), 21.3, 1e-12);
  EXPECT_FALSE(one.ph);
  EXPECT_NEAR(readPenLine("1450 uS/cm").conductivity->milliSiemensPerCm(), 1.45, 1e-12);
  EXPECT_NEAR(readPenLine("1450 µS/cm 70F").temperature->celsius(), 21.111, 1e-3);
  EXPECT_NEAR(readPenLine("725 ppm500").conductivity->milliSiemensPerCm(), 1.45, 1e-12);
  const auto both = readPenLine("ST,EC,1.45,mS/cm,pH,5.82,21.3,C\r");
  EXPECT_EQ(both.stable, true);
  EXPECT_EQ(both.ph, 5.82);
  EXPECT_EQ(readPenLine("pH=5.8").ph, 5.8);
}

TEST(PenLines, ThatMayMeanAnythingAreNothing) {
  for (const char* line :
       {"", "1.45", "725 ppm", "EC 1.45", "pH", "pH 15", "pH -1", "EC -1 mS/cm", "pH 5.8 pH 5.9",
        "1.4 mS/cm 1.5 mS/cm", "ERR", "EC 1,450 uS/cm", "21.3 C", "pH 5.8 batt low"})
    EXPECT_TRUE(readPenLine(line).isEmpty()) << line;
}

TEST(PenWatch, WaitsUntilThePhHasSettledToo) {
  sim::SimBench bench({}, 5);
  bench.apply(
      sim::act::Dip{core::Conductivity::fromMilliSiemensPerCm(1.7), 5.8, core::Temperature::fromCelsius(21)});
  PenWatch watch;
  std::int64_t now = 0, stillAt = 0;
  for (; now < 60000 && stillAt == 0; now += 500) {
    bench.advance(0.5);
    watch.take(readPenLine(bench.pen.line()), now);
    if (watch.now(now).still) stillAt = now;
  }
  EXPECT_GT(stillAt, 8000) << "a pH glass takes its time";
  EXPECT_NEAR(watch.now(now).conductivity->milliSiemensPerCm(), 1.7, 0.03);
  EXPECT_NEAR(*watch.now(now).ph, 5.8, 0.06);
  EXPECT_FALSE(watch.now(now + 10000).heard) << "silent for long: nothing is shown for what it was";
}

TEST(SimPen, IsOffByItsCalibrationAndItsDrift) {
  sim::PenModel pen(1);
  pen.setCalibration(0.9, 0.3);
  pen.dip(core::Conductivity::fromMilliSiemensPerCm(2), 6, core::Temperature::fromCelsius(18));
  for (int i = 0; i < 1000; ++i)
    pen.advance(0.1);
  const auto read = readPenLine(pen.line());
  EXPECT_NEAR(read.conductivity->milliSiemensPerCm(), 1.8, 0.02);
  EXPECT_NEAR(*read.ph, 6.3, 0.03);
}

TEST(Scenarios, AreReadStrictly) {
  const auto good =
      sim::parseScenario("# a pour\n0 on 312 g\n1 tare\n\n2.5 pour 0.5 lb in 4 s\n9 tip leaving 1 %\n"
                         "10 unit lb:oz\n11 dip 1.4 mS/cm pH 5.8 21 C\n12 unplug 3 s\n13 pull -20 g\n");
  ASSERT_TRUE(static_cast<bool>(good)) << good.problem().where;
  EXPECT_EQ(good->size(), 8u);
  EXPECT_NEAR(std::get<sim::act::Pour>((*good)[2].act).mass.grams(), 226.796, 1e-3);
  for (const char* bad :
       {"x on 1 g", "0 on", "0 on 1", "0 on 1 furlong", "0 pour 1 g in 4", "0 tare now", "0 unit st",
        "-1 tare", "0 dip 1.4 mS/cm", "0 explode", "0 pour -1 g", "0 span 0"}) {
    const auto read = sim::parseScenario(bad);
    ASSERT_FALSE(static_cast<bool>(read)) << bad;
    EXPECT_EQ(read.problem().where, "line 1") << bad;
  }
}

TEST(SimScale, ShowsTheSameInEveryUnitAndReadsBack) {
  for (const char* unit : {"g", "kg", "oz", "lb", "lb:oz"}) {
    sim::SimBench bench({core::Mass::fromGrams(1), core::Mass::fromKilograms(10), unit, 0, 0.1}, 3);
    bench.apply(sim::act::Pour{core::Mass::fromGrams(1234), 0});
    bench.advance(5);
    const auto read = readScaleLine(bench.scale.line());
    ASSERT_TRUE(read.mass) << unit << ": " << bench.scale.line();
    EXPECT_EQ(read.unit, unit) << bench.scale.line();
    EXPECT_NEAR(read.mass->grams(), 1234, 3) << bench.scale.line();
  }
}

} // namespace
} // namespace butte::devices
