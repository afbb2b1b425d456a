// A bag that is empty and what else the shelf has. Weights by hand from the molar masses (CIAAW).
#include "run/substitute.h"

#include "run/run_result.h"
#include "support/two_tanks.h"

#include <gmock/gmock.h>

namespace butte::core {
namespace {

using test::grams;
using test::stateAfter;

constexpr double gramsPerMolEpsom = 246.47, gramsPerMolMagnesiumNitrate = 256.40;

std::vector<RunDeed> upToMagnesium(const RunPlan& plan, double weighed) {
  auto deeds = test::goodRun(plan);
  std::erase_if(deeds, [](const RunDeed& deed) {
    const auto* one = std::get_if<did::Weighed>(&deed);
    const auto* two = std::get_if<did::Tipped>(&deed);
    const auto* three = std::get_if<did::Clear>(&deed);
    const auto* mark = std::get_if<did::ToppedUp>(&deed);
    const auto* read = std::get_if<did::Read>(&deed);
    return (one && one->product == test::magnesiumSulfate) ||
           (two && two->product == test::magnesiumSulfate) ||
           (three && three->product == test::magnesiumSulfate) || (mark && mark->vessel == 1) ||
           (read && read->vessel == 1);
  });
  if (weighed > 0) {
    deeds.push_back(did::Weighed{test::magnesiumSulfate, grams(weighed), "", true});
    deeds.push_back(did::Tipped{test::magnesiumSulfate, 1});
  }
  return deeds;
}

std::size_t magnesiumStep(const RunPlan& plan) {
  const auto& steps = plan.vessels[1].steps;
  return static_cast<std::size_t>(
      std::find_if(steps.begin(), steps.end(),
                   [](const auto& s) { return s.product == test::magnesiumSulfate; }) -
      steps.begin());
}

TEST(Substitute, MagnesiumComesFromTheOtherMagnesiumSalt) {
  const auto plan = test::twoTanks();
  const auto state = stateAfter(plan, upToMagnesium(plan, 0));
  const auto offers = substitutesFor(plan, state, 1, magnesiumStep(plan));
  ASSERT_FALSE(offers.empty());
  const auto& best = offers.front();
  EXPECT_TRUE(std::any_of(best.parts.begin(), best.parts.end(),
                          [](const auto& part) { return part.product == test::magnesiumNitrate; }));
  EXPECT_LT(best.shiftsPercent.front().second, -20) << "sulfur is still short, and that is told first";
  for (const auto& offer : offers)
    for (const auto& part : offer.parts)
      EXPECT_NE(part.product, test::calciumNitrate) << "calcium does not go into the sulfate's tank";
}

TEST(Substitute, WhatIsOfferedDoesWhatIsTold) {
  const auto plan = test::twoTanks();
  const auto deeds = upToMagnesium(plan, 150);
  const auto state = stateAfter(plan, deeds);
  const auto offers = substitutesFor(plan, state, 1, magnesiumStep(plan));
  ASSERT_FALSE(offers.empty());
  for (const auto& offer : offers) {
    auto more = deeds;
    for (const auto& part : offer.parts)
      more.push_back(did::Substituted{test::magnesiumSulfate, 1, part.product, part.mass});
    for (const auto& part : offer.parts) {
      more.push_back(did::Weighed{part.product, part.mass, "", true});
      more.push_back(did::Tipped{part.product, 1});
      more.push_back(did::Clear{part.product, 1});
    }
    const auto events = test::eventsOf(more);
    const auto now = withSubstitutes(plan, events);
    const auto then = stateAfter(now, more);
    EXPECT_EQ(then.next.phase, RunPhase::TopUp) << "all is in";
    const auto result = runResult(now, then, plan);
    for (const auto& [nutrient, percent] : offer.shiftsPercent) {
      const double planned = result.plannedMgPerLitre.of(nutrient);
      EXPECT_NEAR(100 * (result.actualMgPerLitre.of(nutrient) - planned) / planned, percent, 1e-6)
          << nutrientKey(nutrient);
    }
  }
}

TEST(Substitute, TheNextStepIsTheOtherProductAndStrikingItBringsTheFirstBack) {
  const auto plan = test::twoTanks();
  auto deeds = upToMagnesium(plan, 100);
  const double missingMol = 300 / gramsPerMolEpsom;
  const auto instead = grams(missingMol * gramsPerMolMagnesiumNitrate);
  deeds.push_back(did::Substituted{test::magnesiumSulfate, 1, test::magnesiumNitrate, instead});
  auto now = withSubstitutes(plan, test::eventsOf(deeds));
  auto state = stateAfter(now, deeds);
  ASSERT_EQ(state.next.phase, RunPhase::Weigh);
  EXPECT_EQ(now.vessels[1].steps[state.next.step].product, test::magnesiumNitrate);
  EXPECT_NEAR(toWeighNow(state, now, 1, state.next.step).grams(), instead.grams(), 1e-9);
  EXPECT_NEAR(now.vessels[1].steps[magnesiumStep(now)].planned.grams(), 100, 1e-9);
  deeds.push_back(did::Struck{deeds.size() - 1});
  now = withSubstitutes(plan, test::eventsOf(deeds));
  state = stateAfter(now, deeds);
  EXPECT_EQ(now.vessels[1].steps.size(), plan.vessels[1].steps.size());
  EXPECT_EQ(now.vessels[1].steps[state.next.step].product, test::magnesiumSulfate);
}

TEST(Substitute, OneThatCanNotBeIsNamed) {
  const auto plan = test::twoTanks();
  const std::pair<did::Substituted, const char*> bad[] = {
      {{test::magnesiumSulfate, 1, test::magnesiumSulfate, grams(5)}, "events[0].by"},
      {{test::magnesiumSulfate, 1, 99, grams(5)}, "events[0].product"},
      {{test::magnesiumSulfate, 7, test::magnesiumNitrate, grams(5)}, "events[0].vessel"},
      {{test::magnesiumSulfate, 1, test::magnesiumNitrate, {}}, "events[0].g"}};
  for (const auto& [deed, where] : bad) {
    const auto state = runState(plan, test::eventsOf({deed}));
    ASSERT_FALSE(state) << where;
    EXPECT_EQ(state.problem().where, where);
  }
}

} // namespace
} // namespace butte::core
