// A run at the bench, told by its events. Weights and shares are reckoned by hand; what must always hold is
// tried on runs put together at random.
#include "run/run_advice.h"
#include "run/run_result.h"
#include "support/shelf_builder.h"

#include <gmock/gmock.h>
#include <random>

namespace butte::core {
namespace {

constexpr std::size_t calcium = 0, potassium = 1, magnesium = 2;

RunPlan twoTanks() {
  RunPlan plan;
  plan.shelf = {test::salt("Ca(NO3)2.4H2O"), test::salt("KNO3"), test::salt("MgSO4.7H2O")};
  plan.water = pureWater();
  const auto grams = [](double a, double b, double c) {
    return std::vector<Mass>{Mass::fromGrams(a), Mass::fromGrams(b), Mass::fromGrams(c)};
  };
  plan.vessels = {runVessel("A", Volume::fromLitres(10), 100, plan.shelf, grams(800, 100, 0)),
                  runVessel("B", Volume::fromLitres(10), 100, plan.shelf, grams(0, 200, 400))};
  setTolerances(plan, Mass::fromGrams(0.1));
  return plan;
}

std::vector<RunEvent> told(const std::vector<RunDeed>& deeds) {
  std::vector<RunEvent> out;
  for (const auto& deed : deeds)
    out.push_back({static_cast<std::int64_t>(1000 * out.size()), "K.T.", deed});
  return out;
}

RunState stateOf(const RunPlan& plan, const std::vector<RunDeed>& deeds) {
  auto state = runState(plan, told(deeds));
  EXPECT_TRUE(static_cast<bool>(state)) << (state ? "" : state.problem().where);
  return state ? std::move(state).value() : RunState{};
}

did::Weighed weighed(std::size_t product, double grams, const std::string& lot = {}) {
  return {product, Mass::fromGrams(grams), lot, false};
}
did::Poured poured(std::size_t vessel, double litres) {
  return {vessel, Volume::fromLitres(litres)};
}

TEST(Run, GoesFromStepToStep) {
  const auto plan = twoTanks();
  std::vector<RunDeed> deeds;
  const auto expectNext = [&](RunPhase phase, std::size_t vessel, std::size_t step) {
    const auto next = stateOf(plan, deeds).next;
    EXPECT_EQ(next.phase, phase) << deeds.size();
    EXPECT_EQ(next.vessel, vessel) << deeds.size();
    EXPECT_EQ(next.step, step) << deeds.size();
  };
  const auto then = [&](RunDeed deed) { deeds.push_back(std::move(deed)); };
  expectNext(RunPhase::Prepare, 0, 0);
  then(did::Prepared{});
  expectNext(RunPhase::Pour, 0, 0);
  then(poured(0, 5));
  expectNext(RunPhase::Weigh, 0, 0);
  const auto first = plan.vessels[0].steps[0].product;
  EXPECT_EQ(first, calcium) << "calcium leads its own tank";
  then(weighed(calcium, 500, "L1"));
  EXPECT_NEAR(stillToWeigh(stateOf(plan, deeds), plan, 0, 0).grams(), 300, 1e-9);
  expectNext(RunPhase::Weigh, 0, 0);
  then(weighed(calcium, 301, "L2"));
  expectNext(RunPhase::Tip, 0, 0);
  then(did::Tipped{calcium, 0});
  expectNext(RunPhase::Dissolve, 0, 0);
  EXPECT_EQ(stateOf(plan, deeds).vessels[0].of[calcium].tippedAtMilliseconds, 4000);
  then(did::Clear{calcium, 0});
  expectNext(RunPhase::Weigh, 0, 1);
  then(did::Skipped{potassium, 0});
  expectNext(RunPhase::TopUp, 0, 0);
  then(did::ToppedUp{0, Volume::fromLitres(10)});
  expectNext(RunPhase::Measure, 0, 0);
  then(did::Read{0, Conductivity::fromMilliSiemensPerCm(1.4), 5.8});
  expectNext(RunPhase::Pour, 1, 0);
  for (const auto& deed : std::vector<RunDeed>{
           poured(1, 5), weighed(magnesium, 400), did::Tipped{magnesium, 1}, did::Clear{magnesium, 1},
           weighed(potassium, 200), did::Tipped{potassium, 1}, did::Clear{potassium, 1},
           did::ToppedUp{1, Volume::fromLitres(10)}, did::Read{1, {}, 6.0}})
    then(deed);
  expectNext(RunPhase::Done, 0, 0);
  const auto state = stateOf(plan, deeds);
  ASSERT_EQ(state.lots.size(), 4u) << "two of calcium, one each of the others, unnamed";
  EXPECT_EQ(state.lots[0].lot, "L1");
  EXPECT_NEAR(state.lots[1].mass.grams(), 301, 1e-9);
}

TEST(Run, ASaltForTwoTanksIsCountedForEachByItself) {
  const auto plan = twoTanks();
  std::vector<RunDeed> deeds{poured(0, 5),
                             weighed(calcium, 800),
                             did::Tipped{calcium, 0},
                             did::Clear{calcium, 0},
                             weighed(potassium, 100),
                             did::Tipped{potassium, 0},
                             did::Clear{potassium, 0},
                             did::ToppedUp{0, Volume::fromLitres(10)},
                             did::Read{0, {}, 6.0},
                             poured(1, 5),
                             weighed(magnesium, 400),
                             did::Tipped{magnesium, 1},
                             did::Clear{magnesium, 1}};
  EXPECT_NEAR(stillToWeigh(stateOf(plan, deeds), plan, 1, 1).grams(), 200, 1e-9);
  deeds.push_back(weighed(potassium, 200));
  const auto state = stateOf(plan, deeds);
  EXPECT_EQ(state.next.phase, RunPhase::Tip) << "what is in the cup is not too much for the first tank";
  EXPECT_EQ(state.next.vessel, 1u);
  EXPECT_EQ(vesselOfCup(state, plan, potassium), 1u);
  EXPECT_NEAR(stillToWeigh(state, plan, 0, 1).grams(), 0, 1e-9);
}

// 0.1 % too much is no trouble; 10 % is: 7.3 % of the nitrate is the calcium's.
TEST(Run, AnOvershootAsksForADecision) {
  const auto plan = twoTanks();
  std::vector<RunDeed> deeds{poured(0, 5), weighed(calcium, 880)};
  const auto state = stateOf(plan, deeds);
  EXPECT_EQ(state.next.phase, RunPhase::Decide);
  const auto over = overshootOf(plan, state, 0, 0);
  ASSERT_TRUE(over);
  EXPECT_NEAR(over->over.grams(), 80, 1e-9);
  EXPECT_NEAR(over->takeOut.grams(), 80, 1e-9) << "it is dry yet";
  ASSERT_FALSE(over->shiftsPercent.empty());
  EXPECT_EQ(over->shiftsPercent.front().first, Nutrient::Ca);
  EXPECT_NEAR(over->shiftsPercent.front().second, 10, 1e-9) << "all calcium is from this salt";
  EXPECT_GT(over->accepted, over->planned);
  EXPECT_NEAR(over->rescale.ratio, 1.1, 1e-12);
  EXPECT_NEAR(over->rescale.more[0][0].grams(), 0, 1e-9);
  EXPECT_NEAR(over->rescale.more[0][1].grams(), 110, 1e-9);
  EXPECT_NEAR(over->rescale.volumes[1].litres(), 11, 1e-12);

  auto out = deeds;
  out.push_back(did::TakenOut{calcium, Mass::fromGrams(80)});
  EXPECT_EQ(stateOf(plan, out).next.phase, RunPhase::Tip);
  auto accepted = deeds;
  accepted.push_back(did::Accepted{calcium, 0});
  EXPECT_EQ(stateOf(plan, accepted).next.phase, RunPhase::Tip);
  auto larger = deeds;
  larger.push_back(did::Rescaled{1.1});
  EXPECT_EQ(stateOf(plan, larger).next.phase, RunPhase::Tip);
  auto wet = deeds;
  wet.push_back(did::Tipped{calcium, 0});
  EXPECT_EQ(stateOf(plan, wet).next.phase, RunPhase::Decide);
  EXPECT_EQ(overshootOf(plan, stateOf(plan, wet), 0, 0)->takeOut, Mass{}) << "what is wet stays";
}

// Potassium nitrate goes into both tanks: too much of it that is accepted for A stays A's.
TEST(Run, ACupThatWasAcceptedGoesWhereItWasAcceptedFor) {
  const auto plan = twoTanks();
  std::vector<RunDeed> deeds{poured(0, 5), weighed(calcium, 800), did::Tipped{calcium, 0},
                             did::Clear{calcium, 0}, weighed(potassium, 130)};
  ASSERT_EQ(stateOf(plan, deeds).next.phase, RunPhase::Decide);
  deeds.push_back(did::Accepted{potassium, 0});
  auto state = stateOf(plan, deeds);
  EXPECT_EQ(state.next.phase, RunPhase::Tip);
  EXPECT_EQ(vesselOfCup(state, plan, potassium), std::optional<std::size_t>(0));
  deeds.push_back(did::Tipped{potassium, 0});
  state = stateOf(plan, deeds);
  EXPECT_EQ(state.next.phase, RunPhase::Dissolve);
  EXPECT_EQ(vesselOfCup(state, plan, potassium), std::optional<std::size_t>(1)) << "the next cup is B's";
}

// Half of a vessel of 100 L is feed of half strength: a quarter of each salt is in it.
TEST(Run, WhatIsInTheVesselAlreadyCounts) {
  auto plan = twoTanks();
  const auto g = [](double grams) { return Mass::fromGrams(grams); };
  plan.vessels = {runVessel("vessel", Volume::fromLitres(100), 1, plan.shelf, {g(80), g(0), g(40)})};
  plan.vessels[0].had = {Volume::fromLitres(50), {g(20), {}, g(10)}};
  setTolerances(plan, g(0.1));
  EXPECT_NEAR(waterFirst(plan.vessels[0]).litres(), 40, 1e-9) << "to 90 L, where the salts go in";
  std::vector<RunDeed> deeds{did::Prepared{}};
  EXPECT_EQ(stateOf(plan, deeds).next.phase, RunPhase::Pour);
  deeds.push_back(poured(0, 40));
  auto state = stateOf(plan, deeds);
  ASSERT_EQ(state.next.phase, RunPhase::Weigh);
  EXPECT_NEAR(toWeighNow(state, plan, 0, 0).grams(), 30, 1e-9) << "magnesium sulfate goes first into feed";
  for (const auto& step : plan.vessels[0].steps) {
    deeds.push_back(weighed(step.product, 0.75 * step.planned.grams()));
    deeds.push_back(did::Tipped{step.product, 0});
    deeds.push_back(did::Clear{step.product, 0});
  }
  deeds.push_back(did::ToppedUp{0, Volume::fromLitres(100)});
  state = stateOf(plan, deeds);
  EXPECT_EQ(state.next.phase, RunPhase::Measure);
  const auto result = runResult(plan, state);
  for (const auto n : allNutrients)
    EXPECT_NEAR(result.actualMgPerLitre.of(n), result.plannedMgPerLitre.of(n), 1e-9) << nutrientKey(n);
  double taken = 0;
  for (const auto& lot : state.lots)
    taken += lot.mass.grams();
  EXPECT_NEAR(taken, 90, 1e-9) << "only what came out of the bags";
}

TEST(Run, WhatWasRescaledKeepsTheFeed) {
  const auto plan = twoTanks();
  std::vector<RunDeed> deeds{did::Rescaled{1.1}};
  for (std::size_t v = 0; v < plan.vessels.size(); ++v) {
    for (const auto& step : plan.vessels[v].steps) {
      deeds.push_back(weighed(step.product, 1.1 * step.planned.grams()));
      deeds.push_back(did::Tipped{step.product, v});
    }
    deeds.push_back(did::ToppedUp{v, plan.vessels[v].volume * 1.1});
  }
  const auto result = runResult(plan, stateOf(plan, deeds));
  for (const auto n : allNutrients)
    EXPECT_NEAR(result.actualMgPerLitre.of(n), result.plannedMgPerLitre.of(n), 1e-9);
  for (const auto& line : result.deviations)
    EXPECT_NEAR(*line.percent, 0, 1e-9);
}

TEST(Run, AWrongTankIsToldInTheResult) {
  const auto plan = twoTanks();
  const auto result =
      runResult(plan, stateOf(plan, {poured(0, 5), weighed(magnesium, 400), did::Tipped{magnesium, 0}}));
  EXPECT_NEAR(result.actualMgPerLitre.of(Nutrient::Mg), result.plannedMgPerLitre.of(Nutrient::Mg), 1e-9);
  const auto& stray = result.deviations[2];
  EXPECT_EQ(stray.vessel, 0u);
  EXPECT_EQ(stray.product, magnesium);
  EXPECT_FALSE(stray.percent) << "it was not planned there";
  EXPECT_NEAR(stray.actual.grams(), 400, 1e-9);
}

// Common practice: a second look is worth 1 % of an element; the step of the scale is no smaller error.
TEST(Run, ToleranceFollowsWhatAnErrorDoesToTheFeed) {
  const auto plan = twoTanks();
  EXPECT_NEAR(plan.vessels[0].steps[0].tolerance.grams(), 8, 0.01) << "all calcium is from it";
  const auto potassiumInA = plan.vessels[0].steps[1].tolerance.grams();
  EXPECT_NEAR(potassiumInA, 2, 0.01) << "1 % of the potassium of both tanks would be 3 g";
  auto coarse = plan;
  setTolerances(coarse, Mass::fromGrams(50));
  EXPECT_NEAR(coarse.vessels[0].steps[0].tolerance.grams(), 25, 1e-9);
}

TEST(Run, EventsThatCanNotBeAreNamed) {
  const auto plan = twoTanks();
  const std::pair<RunDeed, ProblemCode> bad[] = {
      {did::Tipped{calcium, 0}, ProblemCode::MissingKey},
      {did::Clear{calcium, 0}, ProblemCode::MissingKey},
      {did::TakenOut{calcium, Mass::fromGrams(1)}, ProblemCode::OutOfRange},
      {weighed(calcium, 0), ProblemCode::OutOfRange},
      {weighed(calcium, -5), ProblemCode::OutOfRange},
      {weighed(calcium, std::nan("")), ProblemCode::OutOfRange},
      {weighed(9, 5), ProblemCode::OutOfRange},
      {poured(7, 5), ProblemCode::OutOfRange},
      {poured(0, 0), ProblemCode::OutOfRange},
      {did::Rescaled{0}, ProblemCode::OutOfRange},
      {did::Read{0, {}, {}}, ProblemCode::MissingKey},
      {did::HandedOver{""}, ProblemCode::MissingKey},
      {did::Struck{1}, ProblemCode::NotOneOf},
      {did::Struck{5}, ProblemCode::NotOneOf}};
  for (const auto& [deed, code] : bad) {
    const auto state = runState(plan, told({poured(0, 5), deed}));
    ASSERT_FALSE(static_cast<bool>(state)) << deed.index();
    EXPECT_EQ(state.problem().code, code) << deed.index();
    EXPECT_THAT(state.problem().where, ::testing::StartsWith("events[1]"));
  }
  EXPECT_FALSE(static_cast<bool>(runState(plan, told({did::Finished{}, poured(0, 5)}))));
}

TEST(Run, AStruckEventDidNotHappen) {
  const auto plan = twoTanks();
  const auto struck =
      stateOf(plan, {poured(0, 5), weighed(calcium, 80), did::Struck{1}, weighed(calcium, 800)});
  EXPECT_NEAR(struck.cup[calcium].grams(), 800, 1e-9);
  EXPECT_NEAR(struck.taken[calcium].grams(), 800, 1e-9);
  EXPECT_FALSE(static_cast<bool>(
      runState(plan, told({poured(0, 5), weighed(calcium, 80), did::Struck{1}, did::Struck{1}}))))
      << "it is struck already";
  EXPECT_FALSE(static_cast<bool>(
      runState(plan, told({weighed(calcium, 80), did::Tipped{calcium, 0}, did::Struck{0}}))))
      << "what stands on it would hang in the air";
}

TEST(Run, HandsPassAndRest) {
  const auto plan = twoTanks();
  const auto state = stateOf(plan, {poured(0, 5), did::HandedOver{"M.A."}, did::Paused{}});
  EXPECT_EQ(state.who, "M.A.");
  EXPECT_TRUE(state.paused);
  EXPECT_FALSE(stateOf(plan, {did::Paused{}, did::Resumed{}}).paused);
}

/// Events put together at random, those kept that can follow.
std::vector<RunEvent> randomRun(const RunPlan& plan, unsigned seed) {
  std::mt19937 random(seed);
  const auto below = [&](unsigned n) { return static_cast<std::size_t>(random() % n); };
  std::vector<RunEvent> out;
  for (int i = 0; i < 60; ++i) {
    const auto product = below(3), vessel = below(2);
    const auto mass = Mass::fromGrams(1 + static_cast<double>(below(900)));
    const std::vector<RunDeed> deeds{
        weighed(product, mass.grams(), below(2) ? "L1" : "L2"),
        weighed(product, mass.grams()),
        did::TakenOut{product, mass},
        did::Tipped{product, vessel},
        did::Clear{product, vessel},
        did::Accepted{product, vessel},
        did::Rescaled{0.5 + 0.1 * static_cast<double>(below(20))},
        did::ToppedUp{vessel, Volume::fromLitres(8 + static_cast<double>(below(5)))},
        did::Struck{below(60)}};
    auto tried = out;
    tried.push_back({i, "K.T.", deeds[below(static_cast<unsigned>(deeds.size()))]});
    if (runState(plan, tried)) out = std::move(tried);
  }
  return out;
}

TEST(Run, NoGramIsLostBetweenBagCupAndVessel) {
  const auto plan = twoTanks();
  for (unsigned seed = 0; seed < 200; ++seed) {
    const auto events = randomRun(plan, seed);
    const auto state = *runState(plan, events);
    for (std::size_t p = 0; p < plan.shelf.size(); ++p) {
      auto there = state.cup[p];
      for (const auto& vessel : state.vessels)
        there = there + vessel.of[p].in;
      Mass byLot;
      for (const auto& lot : state.lots)
        if (lot.product == p) byLot = byLot + lot.mass;
      EXPECT_NEAR(state.taken[p].grams(), there.grams(), 1e-6) << seed;
      EXPECT_NEAR(byLot.grams(), there.grams(), 1e-6) << seed;
      EXPECT_GE(there, Mass{});
    }
    const auto again = *runState(plan, events);
    EXPECT_EQ(again.next.phase, state.next.phase);
    EXPECT_EQ(runResult(plan, again).actualMgPerLitre.of(Nutrient::K),
              runResult(plan, state).actualMgPerLitre.of(Nutrient::K));
  }
}

} // namespace
} // namespace butte::core
