// Salts in the wrong vessel, loads, and what can be weighed while something dissolves. Solubility of gypsum:
// about 2.4 g/L in pure water at 20 degC (CRC Handbook); beside much calcium less of its sulfate stays.
#include "run/run_trouble.h"

#include "formula/mix.h"
#include "support/shelf_builder.h"

#include <cmath>
#include <gmock/gmock.h>

namespace butte::core {
namespace {

constexpr std::size_t calcium = 0, potassium = 1, magnesium = 2, sulfate = 3;
constexpr double gramsPerMolGypsum = 172.17, gramsPerMolEpsom = 246.47; // atomic masses, CIAAW

Mass g(double grams) {
  return Mass::fromGrams(grams);
}

RunPlan twoTanks() {
  RunPlan plan;
  plan.shelf = {test::salt("Ca(NO3)2.4H2O"), test::salt("KNO3"), test::salt("MgSO4.7H2O"),
                test::salt("K2SO4")};
  plan.shelf[calcium].id = "cn", plan.shelf[potassium].id = "kn", plan.shelf[magnesium].id = "mg",
  plan.shelf[sulfate].id = "ks";
  plan.water = pureWater();
  plan.vessels = {runVessel("A", Volume::fromLitres(10), 100, plan.shelf, {g(800), g(100), {}, {}}),
                  runVessel("B", Volume::fromLitres(10), 100, plan.shelf, {{}, g(200), g(400), {}})};
  setTolerances(plan, g(0.1));
  return plan;
}

RunState stateOf(const RunPlan& plan, const std::vector<RunDeed>& deeds) {
  std::vector<RunEvent> events;
  for (const auto& deed : deeds)
    events.push_back({static_cast<std::int64_t>(1000 * events.size()), "K.T.", deed});
  auto state = runState(plan, events);
  EXPECT_TRUE(static_cast<bool>(state)) << (state ? "" : state.problem().where);
  return state ? std::move(state).value() : RunState{};
}

std::vector<RunDeed> calciumThenSulfateInto(std::size_t vessel) {
  return {did::Poured{0, Volume::fromLitres(5)},
          did::Weighed{calcium, g(800), "", false},
          did::Tipped{calcium, 0},
          did::Clear{calcium, 0},
          did::Weighed{magnesium, g(400), "", false},
          did::Tipped{magnesium, vessel}};
}

TEST(RunTrouble, SulfateInTheCalciumTankFallsAsGypsum) {
  const auto plan = twoTanks();
  const auto state = stateOf(plan, calciumThenSulfateInto(0));
  const auto strays = misplacedIn(plan, state);
  ASSERT_EQ(strays.size(), 1u);
  EXPECT_EQ(strays[0].product, magnesium);
  EXPECT_EQ(strays[0].vessel, 0u);
  EXPECT_EQ(strays[0].lackedBy, 1u);
  const auto outcome = outcomeOf(plan, state, 0);
  ASSERT_FALSE(outcome.fallen.empty());
  EXPECT_EQ(outcome.fallen[0].solid, "gypsum");
  const double all = 400 / gramsPerMolEpsom * gramsPerMolGypsum / 10; // g/L, if all of its sulfate fell
  EXPECT_LT(outcome.fallen[0].gramsPerLitre, all);
  EXPECT_GT(outcome.fallen[0].gramsPerLitre, all - 4.8)
      << "twice what pure water holds: so much salt beside it";
  ASSERT_FALSE(outcome.shiftsPercent.empty());
  EXPECT_EQ(outcome.shiftsPercent[0].first, Nutrient::S);
  EXPECT_LT(outcome.shiftsPercent[0].second, -90);
  for (const auto& [nutrient, percent] : outcome.shiftsPercent)
    EXPECT_NE(nutrient, Nutrient::Mg) << "magnesium stays in solution: " << percent;
}

TEST(RunTrouble, NothingIsSaidOfWhatIsAsPlanned) {
  const auto plan = twoTanks();
  const auto state = stateOf(plan, calciumThenSulfateInto(1));
  EXPECT_TRUE(misplacedIn(plan, state).empty());
  EXPECT_TRUE(outcomeOf(plan, state, 0).fallen.empty());
}

TEST(RunTrouble, MoreThanBelongsThereIsMisplacedWhileAnotherVesselLacksIt) {
  const auto plan = twoTanks();
  std::vector<RunDeed> deeds{did::Poured{0, Volume::fromLitres(5)},
                             did::Weighed{potassium, g(100), "", false}, did::Tipped{potassium, 0}};
  EXPECT_TRUE(misplacedIn(plan, stateOf(plan, deeds)).empty());
  deeds.push_back(did::Weighed{potassium, g(200), "", false});
  deeds.push_back(did::Tipped{potassium, 0});
  const auto strays = misplacedIn(plan, stateOf(plan, deeds));
  ASSERT_EQ(strays.size(), 1u);
  EXPECT_EQ(strays[0].mass, g(200));
  EXPECT_EQ(strays[0].lackedBy, 1u);
  EXPECT_TRUE(outcomeOf(plan, stateOf(plan, deeds), 0).shiftsPercent.empty()) << "the feed gets all of it";
}

TEST(RunTrouble, ASaltThatWasPlannedForNoVesselIsTooMuchOfIt) {
  const auto plan = twoTanks();
  const auto state = stateOf(plan, {did::Poured{1, Volume::fromLitres(5)},
                                    did::Weighed{sulfate, g(20), "", false}, did::Tipped{sulfate, 1}});
  const auto strays = misplacedIn(plan, state);
  ASSERT_EQ(strays.size(), 1u);
  EXPECT_FALSE(strays[0].lackedBy);
  const auto outcome = outcomeOf(plan, state, 1);
  EXPECT_TRUE(outcome.fallen.empty());
  ASSERT_FALSE(outcome.shiftsPercent.empty());
  EXPECT_GT(outcome.shiftsPercent[0].second, 0) << "potassium and sulfur more";
}

TEST(RunTrouble, APouredAwayVesselBeginsAnew) {
  const auto plan = twoTanks();
  auto deeds = calciumThenSulfateInto(0);
  deeds.push_back(did::Discarded{0});
  const auto state = stateOf(plan, deeds);
  EXPECT_TRUE(misplacedIn(plan, state).empty());
  EXPECT_EQ(state.next.phase, RunPhase::Pour);
  EXPECT_EQ(state.next.vessel, 0u);
  EXPECT_EQ(state.taken[calcium], g(800)) << "it came out of the bag all the same";
}

TEST(RunTrouble, TheBagThatSuffices) {
  const auto plan = twoTanks();
  const auto state = stateOf(plan, {did::Weighed{calcium, g(600), "", false}});
  EXPECT_NEAR(*ratioThatSuffices(plan, state, 0, 0), 0.75, 1e-12);
  EXPECT_FALSE(ratioThatSuffices(plan, stateOf(plan, {did::Weighed{calcium, g(800), "", false}}), 0, 0));
  EXPECT_FALSE(ratioThatSuffices(plan, stateOf(plan, {did::Prepared{}}), 0, 0)) << "nothing of it is there";
}

TEST(RunLoads, WhatTheScaleCanNotTakeAtOnceGoesInEqualLoads) {
  auto plan = twoTanks();
  plan.vessels[0].steps[0].mostAtOnce = g(300);
  std::vector<RunDeed> deeds{did::Poured{0, Volume::fromLitres(5)}};
  EXPECT_EQ(loadsOf(stateOf(plan, deeds), plan.vessels[0].steps[0]), 3);
  for (int load = 0; load < 3; ++load) {
    EXPECT_EQ(stateOf(plan, deeds).next.phase, RunPhase::Weigh) << load;
    EXPECT_NEAR(toWeighNow(stateOf(plan, deeds), plan, 0, 0).grams(), 800.0 / 3, 1e-9) << load;
    deeds.push_back(did::Weighed{calcium, g(800.0 / 3), "", false});
    EXPECT_EQ(stateOf(plan, deeds).next.phase, RunPhase::Tip) << load;
    deeds.push_back(did::Tipped{calcium, 0});
  }
  EXPECT_EQ(stateOf(plan, deeds).next.phase, RunPhase::Dissolve);
}

TEST(RunMeanwhile, TheNextSaltIsWeighedWhileOneDissolves) {
  const auto plan = twoTanks();
  std::vector<RunDeed> deeds{did::Poured{0, Volume::fromLitres(5)}, did::Weighed{calcium, g(800), "", false}};
  EXPECT_FALSE(weighMeanwhile(plan, stateOf(plan, deeds)));
  deeds.push_back(did::Tipped{calcium, 0});
  const auto ahead = weighMeanwhile(plan, stateOf(plan, deeds));
  ASSERT_TRUE(ahead);
  EXPECT_EQ(ahead->step, 1u);
  deeds.push_back(did::Weighed{potassium, g(100), "", false});
  EXPECT_FALSE(weighMeanwhile(plan, stateOf(plan, deeds))) << "it lies in its cup";
  deeds.push_back(did::Clear{calcium, 0});
  EXPECT_EQ(stateOf(plan, deeds).next.phase, RunPhase::Tip);
}

TEST(RunScales, EachStepHasTheScaleItGoesOnBest) {
  auto plan = twoTanks();
  plan.vessels[0].steps[1].planned = g(2);
  fitScales(plan, {{"pocket", g(0.01), g(30)}, {"big", g(5), g(500)}});
  EXPECT_EQ(plan.vessels[0].steps[0].scale, "big");
  EXPECT_EQ(plan.vessels[0].steps[0].mostAtOnce, g(500));
  EXPECT_GE(plan.vessels[0].steps[0].tolerance, g(2.5)) << "no finer than half a step of its own scale";
  EXPECT_EQ(plan.vessels[0].steps[1].scale, "pocket");
  EXPECT_LE(plan.vessels[0].steps[1].tolerance, g(0.04)) << "2 % of it, not half a step of the other scale";
}

} // namespace
} // namespace butte::core
