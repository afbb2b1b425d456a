// Pours on a stand-in scale, followed line by line: what is trusted, what is asked, what never passes.
#include "model/sim_bench.h"
#include "scale/weigh_watch.h"

#include <gtest/gtest.h>

namespace butte::devices {
namespace {

using core::Mass;

Mass g(double grams) {
  return Mass::fromGrams(grams);
}

class Pour : public ::testing::Test {
protected:
  void SetUp() override { watch.setTask({g(250), g(2), g(0.1)}); }

  /// Lets time go by, line by line.
  void wait(double seconds) {
    constexpr double tick = 0.05;
    for (double left = seconds; left > tick / 2; left -= tick) {
      bench.advance(tick);
      m_now += 50;
      if (!bench.isUnplugged()) watch.take(readScaleLine(bench.scale.line()), m_now);
      captured = captured || now().mayCapture;
      worst = std::max(worst, std::abs(bench.scale.content().grams()));
    }
  }
  WatchNow now() const { return watch.now(m_now); }
  void containerOnAndTare() {
    bench.apply(sim::act::LayOn{g(38)});
    wait(2);
    bench.apply(sim::act::Tare{});
    wait(2);
  }

  sim::SimBench bench{{g(0.1), g(3000), "g", 0.3, 0.15}, 7};
  WeighWatch watch;
  std::int64_t m_now = 1000;
  bool captured = false;
  double worst = 0;
};

TEST_F(Pour, IsRightOnceItIsStillWithinTheBand) {
  EXPECT_EQ(now().state, WatchState::Silent);
  wait(2);
  EXPECT_EQ(now().state, WatchState::Ready);
  containerOnAndTare();
  EXPECT_EQ(now().state, WatchState::Ready);
  bench.apply(sim::act::Pour{g(200), 3});
  wait(2);
  EXPECT_EQ(now().state, WatchState::Filling);
  wait(2);
  bench.apply(sim::act::Pour{g(40), 2});
  wait(2.5);
  EXPECT_EQ(now().state, WatchState::Near);
  bench.apply(sim::act::Pour{g(10), 1});
  wait(1.2);
  EXPECT_FALSE(captured) << "never while it moves";
  wait(3);
  EXPECT_EQ(now().state, WatchState::Right);
  EXPECT_TRUE(now().mayCapture);
  EXPECT_NEAR(now().fresh.grams(), 250, 0.5);
  EXPECT_EQ(now().hint, WatchHint::None);
}

TEST_F(Pour, AContainerThatWasThereBeforeIsToBeTared) {
  bench.apply(sim::act::LayOn{g(38)});
  wait(3);
  EXPECT_EQ(now().state, WatchState::NotZero);
  bench.apply(sim::act::Tare{});
  wait(3);
  EXPECT_EQ(now().state, WatchState::Ready);
  bench.apply(sim::act::Pour{g(100), 0});
  wait(3);
  EXPECT_EQ(now().hint, WatchHint::None) << "the tare was seen: this is salt";
}

TEST_F(Pour, TheContainerMayBeTakenAsZeroInsteadOfATare) {
  bench.apply(sim::act::LayOn{g(38)});
  wait(3);
  watch.takeAsZero(m_now);
  wait(2);
  EXPECT_EQ(now().state, WatchState::Ready);
  bench.apply(sim::act::Pour{g(250), 4});
  wait(8);
  EXPECT_TRUE(now().mayCapture);
  EXPECT_NEAR(now().fresh.grams(), 250, 0.5);
}

TEST_F(Pour, AForgottenTareIsAskedAfterAndNeverCaptured) {
  watch.setTask({g(38), g(2), g(0.1)}); // as much salt as the cup weighs
  wait(2);
  bench.apply(sim::act::LayOn{g(38)});
  wait(4);
  EXPECT_EQ(now().hint, WatchHint::LooksLikeContainer);
  EXPECT_FALSE(captured);
  watch.isNoContainer();
  wait(1);
  EXPECT_TRUE(now().mayCapture) << "the hand says it is salt";
}

TEST_F(Pour, AScoopIsNoContainerOnceTheTareWasSeen) {
  containerOnAndTare();
  bench.apply(sim::act::Pour{g(120), 0});
  wait(3);
  EXPECT_EQ(now().hint, WatchHint::None);
  EXPECT_EQ(now().state, WatchState::Filling);
}

TEST_F(Pour, TooMuchStaysTooMuchUntilItIsTakenOut) {
  containerOnAndTare();
  bench.apply(sim::act::Pour{g(260), 4});
  wait(8);
  EXPECT_EQ(now().state, WatchState::TooMuch);
  EXPECT_FALSE(captured);
  bench.apply(sim::act::TakeOut{g(10)});
  wait(4);
  EXPECT_EQ(now().state, WatchState::Right);
}

TEST_F(Pour, WhatWasCountedStaysCountedAndTheNextBeginsFromIt) {
  containerOnAndTare();
  bench.apply(sim::act::Pour{g(250), 4});
  wait(8);
  watch.count(m_now);
  watch.setTask({g(30), g(1), g(0.1)});
  wait(1);
  EXPECT_EQ(now().state, WatchState::Ready);
  bench.apply(sim::act::Pour{g(30), 3});
  wait(6);
  EXPECT_TRUE(now().mayCapture);
  EXPECT_NEAR(now().fresh.grams(), 30, 0.5);
  EXPECT_NEAR(now().shown.grams(), 280, 1);
}

TEST_F(Pour, ATippedAndReturnedCupBeginsAtZeroAgain) {
  containerOnAndTare();
  bench.apply(sim::act::Pour{g(250), 4});
  wait(8);
  watch.count(m_now);
  bench.apply(sim::act::Lift{});
  wait(3);
  EXPECT_EQ(now().state, WatchState::Lifted);
  bench.apply(sim::act::Tip{});
  wait(3);
  EXPECT_EQ(now().state, WatchState::Ready);
  EXPECT_NEAR(now().fresh.grams(), 0, 0.3);
}

TEST_F(Pour, ADraughtIsNeverCaptured) {
  containerOnAndTare();
  bench.apply(sim::act::Pour{g(250), 4});
  bench.apply(sim::act::Draught{12});
  wait(11);
  EXPECT_FALSE(captured);
  EXPECT_EQ(now().hint, WatchHint::MovesUpAndDown);
  wait(6);
  EXPECT_TRUE(now().mayCapture) << "once it is over";
}

TEST_F(Pour, ACordThatLiftsIsSeen) {
  containerOnAndTare();
  bench.apply(sim::act::Pour{g(200), 4});
  wait(7);
  bench.apply(sim::act::Pull{g(15)});
  wait(3);
  EXPECT_EQ(now().hint, WatchHint::ShowsLess);
  EXPECT_NEAR(now().lessThanBefore.grams(), 15, 1);
}

TEST_F(Pour, ALostLineIsSilentAndComesBack) {
  containerOnAndTare();
  bench.apply(sim::act::Pour{g(100), 2});
  wait(4);
  bench.apply(sim::act::Unplug{5});
  wait(4);
  EXPECT_EQ(now().state, WatchState::Silent);
  watch.lost();
  wait(4);
  EXPECT_EQ(now().state, WatchState::Filling);
  EXPECT_NEAR(now().fresh.grams(), 100, 0.5);
}

TEST_F(Pour, OverloadAndNonsenseAreSaid) {
  bench.apply(sim::act::LayOn{g(4000)});
  wait(3);
  EXPECT_EQ(now().state, WatchState::Overload);
  watch.take(readScaleLine("Wght 12 furlongs"), m_now);
  EXPECT_EQ(now().state, WatchState::Unreadable);
}

TEST_F(Pour, AnotherUnitOnTheDisplayIsTheSameWeight) {
  containerOnAndTare();
  bench.apply(sim::act::Pour{g(100), 2});
  wait(4);
  bench.apply(sim::act::ShowIn{"oz"});
  wait(2);
  EXPECT_EQ(now().unit, "oz");
  EXPECT_NEAR(now().fresh.grams(), 100, 0.6);
  EXPECT_EQ(now().hint, WatchHint::None);
}

TEST_F(Pour, ADisplayTooCoarseForTheBandTakesNothing) {
  bench = sim::SimBench({g(1), g(3000), "g", 0.1, 0.15}, 7);
  watch.setTask({g(3), g(0.06), g(1)});
  containerOnAndTare();
  bench.apply(sim::act::Pour{g(2.7), 1}); // shows 3 g
  wait(6);
  EXPECT_FALSE(captured);
  EXPECT_EQ(now().hint, WatchHint::TooCoarse);
  watch.setTask({g(100), g(2), g(1)});
  EXPECT_EQ(now().hint, WatchHint::None);
}

TEST_F(Pour, ASlowPourThatAScaleCallsStableIsNotStill) {
  containerOnAndTare();
  for (int i = 0; i < 200; ++i) { // "ST" all the way, 0.1 g a line
    m_now += 50;
    watch.take(readScaleLine("ST,NT,+ " + std::to_string(240 + i * 0.1).substr(0, 5) + " g"), m_now);
    ASSERT_FALSE(now().still) << i;
  }
}

/// Any weight, any pour: what may be captured is within the band of what truly lies there.
TEST(Pours, OfAnyKindAreCapturedRightOrNotAtAll) {
  std::mt19937 random(3);
  std::uniform_real_distribution<double> share(0, 1);
  int captures = 0;
  for (int run = 0; run < 100; ++run) {
    const double wanted = 5 + 400 * share(random), tolerance = std::max(0.3, wanted * 0.01),
                 first = share(random);
    sim::SimBench bench({g(0.1), g(3000), "g", 0.3 * share(random), 0.05 + 0.2 * share(random)}, run + 1);
    WeighWatch watch;
    watch.setTask({g(wanted), g(tolerance), g(0.1)});
    bench.play({{0.5, sim::act::LayOn{g(20 + 100 * share(random))}},
                {3, sim::act::Tare{}},
                {5 + share(random), sim::act::Pour{g(wanted * first), 5 * share(random)}},
                {8 + 3 * share(random), sim::act::Pour{g(wanted * (1.03 - first)), 2 * share(random)}},
                {10 + 3 * share(random), sim::act::Draught{share(random)}},
                {16, sim::act::TakeOut{g(wanted * 0.06 * share(random))}}});
    for (std::int64_t now = 0; now < 25000; now += 50) {
      bench.advance(0.05);
      watch.take(readScaleLine(bench.scale.line()), now);
      if (!watch.now(now).mayCapture) continue;
      ++captures;
      ASSERT_NEAR(bench.scale.content().grams(), wanted, tolerance + 0.5) << "run " << run << " at " << now;
      break;
    }
  }
  EXPECT_GT(captures, 20);
  EXPECT_LT(captures, 100) << "some end outside the band";
}

TEST(Streaming, AnHourOfLinesKeepsNoMoreThanSeconds) {
  WeighWatch watch;
  watch.setTask({g(10), g(1), g(0.1)});
  const auto reading = readScaleLine("ST,NT,+ 10.0 g");
  for (std::int64_t at = 0; at < 3600 * 1000; at += 50)
    watch.take(reading, at);
  EXPECT_LE(watch.remembered(), 400u);
}

} // namespace
} // namespace butte::devices
