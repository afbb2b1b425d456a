#include "dose/reach_reading.h"
#include "dose/reading_causes.h"
#include "dose/reading_line.h"
#include "dose/reservoir_plan.h"
#include "support/shelf_builder.h"

#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;

namespace {

Conductivity ec(double v) {
  return Conductivity::fromMilliSiemensPerCm(v);
}

/// Two stocks of a plain feed.
struct Bench {
  std::vector<ShelfProduct> shelf{test::salt("Ca(NO3)2·4H2O"), test::salt("KNO3"), test::salt("KH2PO4"),
                                  test::salt("MgSO4·7H2O")};
  std::vector<Mass> grams{test::grams(0.8), test::grams(0.4), test::grams(0.15), test::grams(0.4)};
  MixResult water, feed;
  StockAnswer stock;
  Bench() {
    WaterReport report;
    report.milligramsPerLitre = {{"Ca", 30}, {"HCO3", 90}};
    report.ph = 7.4;
    const auto source = *normaliseWater(report);
    StockPlan plan;
    plan.temperature = Temperature::fromCelsius(15);
    plan.tanks = {{"A", test::litres(50)}, {"B", test::litres(50)}};
    stock = planStock(shelf, grams, test::litres(1), plan);
    water = mix(source, {}, {}, test::litres(1));
    feed = mix(source, shelf, grams, test::litres(1));
  }
};

} // namespace

TEST(ReachReading, StockOfEachKindByTheStraightLine) {
  // Water 0.4, full strength 2.0 at 10 mL per litre: 0.16 per mL. From 0.4 to 1.2 is 5 mL in a finished
  // litre.
  const auto curve = straightCurve(ec(0.4), ec(2.0), 10);
  const auto way = reachReading(test::litres(100), ec(0.4), ec(1.2), 2, curve);
  ASSERT_TRUE(way);
  const double each = way->stockEach.millilitres();
  EXPECT_NEAR(each / (100 + 2 * each / 1000), 5, 1e-6) << "5 mL in every finished litre";
  EXPECT_NEAR(each, 505.05, 0.01);
  EXPECT_EQ(way->water, Volume{});
}

TEST(ReachReading, WaterWhereItStandsTooHigh) {
  const auto curve = straightCurve(ec(0.4), ec(2.0), 10);
  const auto way = reachReading(test::litres(100), ec(2.0), ec(1.6), 2, curve);
  ASSERT_TRUE(way);
  EXPECT_NEAR(way->water.litres(), 100 * (1.6 / 1.2 - 1), 1e-6);
  const auto pureWater = reachReading(test::litres(100), ec(2), ec(1), 2, straightCurve(ec(0), ec(2), 10));
  EXPECT_NEAR(pureWater->water.litres(), 100, 1e-6) << "half the reading, twice the water";
}

TEST(ReachReading, CautiousStepsEndWhereTheWholeWayEnds) {
  const auto curve = straightCurve(ec(0.4), ec(2.0), 10);
  const auto steps = reachInSteps(test::litres(100), ec(0.4), ec(1.2), 2, curve, true);
  ASSERT_TRUE(steps);
  ASSERT_EQ(steps->size(), 2u);
  EXPECT_NEAR((*steps)[1].expected.milliSiemensPerCm(), 1.2, 1e-9);
  EXPECT_NEAR((*steps)[0].expected.milliSiemensPerCm(), 0.8, 0.01) << "half of the way, nearly";
  EXPECT_NEAR(
      reachInSteps(test::litres(100), ec(0.4), ec(1.2), 2, curve, false)->at(0).expected.milliSiemensPerCm(),
      1.2, 1e-9);
}

TEST(ReachReading, WhatCantBeReachedIsNamed) {
  const auto curve = straightCurve(ec(0.4), ec(2.0), 10);
  EXPECT_EQ(reachReading(test::litres(0), ec(1), ec(1.2), 2, curve).problem().where, "volume_l");
  EXPECT_EQ(reachReading(test::litres(1), ec(0.2), ec(1.2), 2, curve).problem().where, "ec_now");
  EXPECT_EQ(reachReading(test::litres(1), ec(1), ec(0.3), 2, curve).problem().where, "ec_target");
  EXPECT_EQ(reachReading(test::litres(1), ec(1), ec(0.4), 2, curve).problem().where, "ec_target");
}

// Common practice: base read 0.9, half dose (5 mL per gallon) 1.5, full dose 2.2 mS/cm: the line through the
// two doses says that the base is 0.8.
TEST(ReadingLine, TwoDosedPointsTellBaseAndSlope) {
  const auto line = fitReadings({{5, ec(1.5)}, {10, ec(2.2)}});
  ASSERT_TRUE(line);
  EXPECT_NEAR(line->base.milliSiemensPerCm(), 0.8, 1e-9);
  EXPECT_NEAR(line->slope, 0.14, 1e-9);
  EXPECT_EQ(line->plusMinus, Conductivity{});
  const auto three = fitReadings({{0, ec(0.9)}, {5, ec(1.5)}, {10, ec(2.2)}});
  EXPECT_GT(three->plusMinus.milliSiemensPerCm(), 0.02);
  EXPECT_EQ(fitReadings({{5, ec(1.5)}}).problem().code, ProblemCode::TooFewReadings);
  EXPECT_EQ(fitReadings({{5, ec(1.5)}, {5, ec(1.6)}}).problem().code, ProblemCode::NotDeterminable);
}

TEST(ReadingCauses, AReadingWithinThePenNeedsNoCause) {
  const auto causes = causesOf({ec(1.6), ec(1.64), ec(0.3), test::litres(100), {}});
  ASSERT_EQ(causes.size(), 1u);
  EXPECT_EQ(causes[0].cause, ReadingCause::WithinMeter);
}

TEST(ReadingCauses, EachCauseExplainsTheReadingByItself) {
  const ReadingGap gap{ec(1.6), ec(1.35), ec(0.4), test::litres(100), {}};
  const auto causes = causesOf(gap);
  for (const auto& c : causes) {
    if (c.cause == ReadingCause::WrongVolume) {
      EXPECT_NEAR(0.4 + 1.2 * 100 / c.value, 1.35, 1e-9);
    }
    if (c.cause == ReadingCause::Undissolved) {
      EXPECT_NEAR(0.4 + 1.2 * (1 - c.value / 100), 1.35, 1e-9) << "so many percent lie on the floor";
    }
    if (c.cause == ReadingCause::StockOff) {
      EXPECT_NEAR(0.4 + 1.2 * c.value, 1.35, 1e-9);
    }
    if (c.cause == ReadingCause::OtherWater) {
      EXPECT_NEAR(c.value + 1.2, 1.35, 1e-9);
    }
    if (c.cause == ReadingCause::Temperature) {
      EXPECT_NEAR(1.6 * (1 + 0.02 * c.value), 1.35, 1e-9);
    }
  }
  EXPECT_TRUE(std::is_sorted(causes.begin(), causes.end(),
                             [](const auto& a, const auto& b) { return a.unlikeliness < b.unlikeliness; }));
}

TEST(ReadingCauses, AShutSideAndAWrongScaleComeFirstWhenTheReadingFitsThem) {
  const auto shut = causesOf({ec(1.6), ec(1.02), ec(0.3), {}, {ec(1.0), ec(0.85)}});
  EXPECT_EQ(shut[0].cause, ReadingCause::OneSideShut);
  EXPECT_EQ(shut[0].tank, 0u);
  const auto scale = causesOf({ec(1.6), ec(1.6 * 500 / 700), ec(0.3), test::litres(100), {}});
  EXPECT_EQ(scale[0].cause, ReadingCause::MeterScale);
  EXPECT_NEAR(scale[0].value, 500.0 / 700, 1e-9);
}

TEST(ReservoirPlan, AnEmptyVesselEndsAtTheMarkTheTargetAndThePh) {
  const Bench bench;
  ReservoirGiven given;
  given.finished = test::litres(190);
  given.target = ec(1.4);
  given.lastWater = test::litres(10);
  auto acid = test::salt("HNO3", 60);
  acid.liquid = true;
  acid.densityKgPerL = 1.37;
  given.acid = acid;
  const auto steps = planReservoir(given, bench.stock, bench.water);
  ASSERT_TRUE(steps);
  ASSERT_GE(steps->size(), 7u);
  EXPECT_EQ(steps->front().act, ReservoirAct::Water);
  EXPECT_EQ(steps->back().act, ReservoirAct::LastWater);
  EXPECT_NEAR(steps->back().volumeAfter.litres(), 190, 0.1);
  EXPECT_NEAR(steps->back().expected.milliSiemensPerCm(), 1.4, 2e-3) << "what the acid adds is counted in";
  const auto& acidified = *std::find_if(steps->rbegin(), steps->rend(),
                                        [](const auto& s) { return s.act == ReservoirAct::Acid; });
  EXPECT_NEAR(*acidified.ph, 5.8, 0.01);
  EXPECT_GT(*steps->back().ph, 5.85) << "water after the acid brings the pH up again";
  EXPECT_GT(acidified.expected, steps->back().expected) << "and the reading down";
  // Each addition raises the reading.
  for (std::size_t i = 1; i + 2 < steps->size(); ++i)
    EXPECT_GE((*steps)[i].expected, (*steps)[i - 1].expected) << i;
}

TEST(ReservoirPlan, AHalfEmptyReservoirIsToppedUpToTheTarget) {
  const Bench bench;
  ReservoirGiven given;
  given.finished = test::litres(200);
  given.present = test::litres(100);
  given.reading = ec(1.8);
  given.target = ec(1.5);
  given.cautious = false;
  const auto steps = planReservoir(given, bench.stock, bench.water);
  ASSERT_TRUE(steps);
  EXPECT_NEAR(steps->back().volumeAfter.litres(), 200, 1e-6);
  EXPECT_NEAR(steps->back().expected.milliSiemensPerCm(), 1.5, 1e-3);
}

TEST(ReservoirPlan, WhatStandsTooStrongForTheFullVesselIsDrained) {
  const Bench bench;
  ReservoirGiven given;
  given.finished = test::litres(100);
  given.present = test::litres(95);
  given.reading = ec(3.0);
  given.target = ec(1.5);
  const auto steps = planReservoir(given, bench.stock, bench.water);
  ASSERT_TRUE(steps);
  EXPECT_EQ(steps->front().act, ReservoirAct::Drain);
  EXPECT_NEAR(steps->back().expected.milliSiemensPerCm(), 1.5, 1e-3);
  EXPECT_NEAR(steps->back().volumeAfter.litres(), 100, 1e-6);
  for (const auto& s : *steps)
    EXPECT_NE(s.act, ReservoirAct::Stock);
}

TEST(ReservoirPlan, TheFullDoseReadsAsTheFormulaSays) {
  const Bench bench;
  ReservoirGiven given;
  given.finished = test::litres(100);
  given.target = bench.feed.conductivity;
  given.cautious = false;
  const auto steps = planReservoir(given, bench.stock, bench.water);
  ASSERT_TRUE(steps);
  ASSERT_EQ(steps->size(), 3u);
  EXPECT_NEAR((*steps)[1].amount.millilitres(), 1000, 10) << "10 mL per litre, nearly";
}

TEST(ReservoirPlan, WeakStocksByReadingsTakeMoreOfThem) {
  const Bench bench;
  ReservoirGiven given;
  given.finished = test::litres(100);
  given.target = ec(1.4);
  given.cautious = false;
  const auto planned = planReservoir(given, bench.stock, bench.water);
  given.stockStrength = 0.8;
  const auto weak = planReservoir(given, bench.stock, bench.water);
  ASSERT_TRUE(planned && weak);
  EXPECT_NEAR((*weak)[1].amount / (*planned)[1].amount, 1 / 0.8, 0.02);
  EXPECT_NEAR(weak->back().expected.milliSiemensPerCm(), 1.4, 2e-3);
  given.stockStrength = 0;
  EXPECT_EQ(planReservoir(given, bench.stock, bench.water).problem().where, "stock_strength");
}

TEST(ReservoirPlan, WhatCantBeIsNamed) {
  const Bench bench;
  ReservoirGiven given;
  given.finished = Volume{};
  EXPECT_EQ(planReservoir(given, bench.stock, bench.water).problem().where, "finished");
  given.finished = test::litres(10);
  given.present = test::litres(11);
  EXPECT_EQ(planReservoir(given, bench.stock, bench.water).problem().where, "present");
  given.present = {};
  given.target = ec(0.01);
  EXPECT_EQ(planReservoir(given, bench.stock, bench.water).problem().where, "target");
  given.target = ec(1);
  EXPECT_EQ(planReservoir(given, StockAnswer{}, bench.water).problem().where, "tanks");
  given.lastWater = test::litres(10);
  EXPECT_EQ(planReservoir(given, bench.stock, bench.water).problem().where, "last_water");
}
