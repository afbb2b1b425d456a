// The bench that is none: what a hand does there, what truly comes of it, and how it stands again after the
// program went. Weights are what was poured.
#include "practice/practice_world.h"

#include "support/two_tanks.h"

#include <gmock/gmock.h>
#include <random>

namespace butte::sim {
namespace {

using core::Gear;
using core::Mass;
using core::Mishap;
using core::RunPhase;
using test::calciumNitrate;
using test::magnesiumSulfate;
using test::potassiumNitrate;
namespace truly = core::truly;

/// A world and what it told.
struct Bench {
  explicit Bench(std::vector<core::PlannedMishap> mishaps = {})
      : world(test::twoTanks(), std::move(mishaps), sim) {
    world.onTruth = [this](const core::TrueDeed& deed) { told.push_back({0, 0, deed}); };
  }
  void fill(std::size_t product, double grams) {
    world.takeTub(product);
    world.pour(Mass::fromGrams(grams));
    world.settle();
  }
  double inCup(std::size_t product) const { return world.truth().cup[product].grams(); }
  double in(std::size_t vessel, std::size_t product) const {
    return world.truth().vessels[vessel].in[product].grams();
  }

  SimBench sim;
  PracticeWorld world;
  std::vector<core::TrueEvent> told;
};

TEST(PracticeWorld, WhatIsPouredFromATubIsWhatItsLidSays) {
  Bench bench;
  bench.world.pour(Mass::fromGrams(5));
  bench.world.settle();
  EXPECT_TRUE(bench.told.empty()) << "no tub is in hand";
  bench.fill(calciumNitrate, 120);
  EXPECT_NEAR(bench.inCup(calciumNitrate), 120, 1e-9);
  bench.world.spoonOut(Mass::fromGrams(20));
  EXPECT_NEAR(bench.inCup(calciumNitrate), 100, 1e-9);
  bench.world.tip(0);
  EXPECT_NEAR(bench.in(0, calciumNitrate), 100, 1e-9);
  EXPECT_NEAR(bench.sim.scale.content().grams(), 0, 1e-9);
}

TEST(PracticeWorld, ATubWithTheWrongLidIsSeenByWhoLooks) {
  Bench bench({{Mishap::MislabelledCup, 0, calciumNitrate, potassiumNitrate}});
  bench.world.standAt({RunPhase::Weigh, 0, 0}, 1);
  bench.fill(calciumNitrate, 50);
  EXPECT_NEAR(bench.inCup(potassiumNitrate), 50, 1e-9) << "the lid lies";
  EXPECT_EQ(bench.world.lookIntoTub(), std::optional<std::size_t>(potassiumNitrate));
  bench.world.emptyCup();
  bench.fill(calciumNitrate, 50);
  EXPECT_NEAR(bench.inCup(calciumNitrate), 50, 1e-9) << "the right tub is in hand now";
  EXPECT_NEAR(bench.inCup(potassiumNitrate), 0, 1e-9);
}

TEST(PracticeWorld, OfTwoCupsTheNearerOneIsTippedUnlessItsLabelIsRead) {
  const core::PlannedMishap swap{Mishap::SwappedCups, 0, calciumNitrate, magnesiumSulfate};
  for (const bool reads : {false, true}) {
    Bench bench({swap});
    bench.world.standAt({RunPhase::Weigh, 0, 0}, 1);
    bench.fill(calciumNitrate, 800);
    bench.world.standAt({RunPhase::Tip, 0, 0}, 1);
    ASSERT_TRUE(bench.world.isBetweenCups());
    EXPECT_EQ(bench.world.nearerCup(), magnesiumSulfate);
    if (reads) bench.world.takeCup(calciumNitrate);
    bench.world.tip(0);
    EXPECT_NEAR(bench.in(0, magnesiumSulfate), reads ? 0 : 400, 1e-9);
    EXPECT_NEAR(bench.in(0, calciumNitrate), reads ? 800 : 0, 1e-9);
    EXPECT_NEAR(bench.inCup(calciumNitrate), reads ? 0 : 800, 1e-9) << "the right cup stands there still";
    EXPECT_EQ(bench.world.truth().isMended(Mishap::SwappedCups), reads);
  }
}

TEST(PracticeWorld, StandsAgainAsItStood) {
  Bench bench({{Mishap::SwappedCups, 0, calciumNitrate, magnesiumSulfate},
               {Mishap::Draught, 0, calciumNitrate, calciumNitrate}});
  bench.world.wear(Gear::Gloves);
  bench.world.pourWater(0, core::Volume::fromLitres(5));
  bench.world.standAt({RunPhase::Weigh, 0, 0}, 1);
  bench.fill(calciumNitrate, 800);
  bench.world.standAt({RunPhase::Tip, 0, 0}, 1);
  Bench again;
  again.world.restore(bench.told);
  EXPECT_EQ(again.world.truth().cup, bench.world.truth().cup);
  EXPECT_TRUE(again.world.truth().wears[static_cast<std::size_t>(Gear::Gloves)]);
  EXPECT_NEAR(again.world.truth().vessels[0].water.litres(), 5, 1e-9);
  EXPECT_NEAR(again.sim.scale.content().grams(), 800, 1e-9) << "the cup stands on the scale";
  EXPECT_TRUE(again.world.isBetweenCups());
  EXPECT_TRUE(again.world.truth().isOn(Mishap::Draught));
  again.sim.advance(1);
  EXPECT_EQ(again.sim.scale.line().substr(0, 2), "US") << "the display dances";
  again.world.shutWindow();
  again.sim.advance(5);
  EXPECT_EQ(again.sim.scale.line().substr(0, 2), "ST");
  again.world.tip(0);
  EXPECT_NEAR(again.in(0, magnesiumSulfate), 400, 1e-9) << "its label was not read before, nor is it now";
}

// A run stands at a product that the plan has no step of, once it came in another's place.
TEST(PracticeWorld, AProductThatWasNotPlannedThereIsStoodAtToo) {
  Bench bench(core::seedMishaps(test::twoTanks(), 3));
  for (const auto phase : {RunPhase::Weigh, RunPhase::Tip, RunPhase::Dissolve})
    bench.world.standAt({phase, 1, test::magnesiumNitrate}, 1);
  bench.fill(test::magnesiumNitrate, 90);
  bench.world.tip(1);
  EXPECT_NEAR(bench.in(1, test::magnesiumNitrate), 90, 1e-9);
}

TEST(PracticeWorld, PensAreWrongUntilTheyAreSet) {
  Bench bench({{Mishap::DriftingPen, 0, 0, 0}});
  bench.world.standAt({RunPhase::Measure, 0, 0}, 1);
  const auto reads = [&] {
    bench.world.dipInStandard();
    bench.sim.advance(120);
    return bench.sim.pen.line();
  };
  EXPECT_THAT(reads(), ::testing::HasSubstr("EC,1.2")) << "0.86 of 1.41";
  bench.world.calibrate();
  EXPECT_THAT(reads(), ::testing::HasSubstr("EC,1.41"));
}

TEST(PracticeWorld, NoGramIsLostWhateverTheHandDoes) {
  std::mt19937_64 random(11);
  for (int round = 0; round < 50; ++round) {
    Bench bench(core::seedMishaps(test::twoTanks(), random()));
    for (int i = 0; i < 60; ++i) {
      const auto vessel = random() % 2, step = random() % 2;
      bench.world.standAt({random() % 2 == 0 ? RunPhase::Weigh : RunPhase::Tip, vessel, step}, 1);
      switch (random() % 7) {
      case 0:
        bench.fill(random() % 3, static_cast<double>(random() % 500));
        break;
      case 1:
        bench.world.spoonOut(Mass::fromGrams(static_cast<double>(random() % 50)));
        break;
      case 2:
        bench.world.lookIntoTub();
        break;
      case 3:
        bench.world.tip(vessel);
        break;
      case 4:
        bench.world.layCup();
        break;
      case 5:
        bench.world.takeCup(random() % 3);
        break;
      default:
        bench.world.stir(vessel);
      }
      bench.world.settle();
      double known = 0;
      for (const auto mass : bench.world.truth().cup)
        known += mass.grams();
      ASSERT_NEAR(bench.sim.scale.content().grams(), known, 1e-6) << "round " << round << ", act " << i;
    }
  }
}

} // namespace
} // namespace butte::sim
