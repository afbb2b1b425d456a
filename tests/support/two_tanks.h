#pragma once
#include "run/run_state.h"
#include "support/shelf_builder.h"

#include <gtest/gtest.h>

namespace butte::test {

/// Of twoTanks()'s shelf.
inline constexpr std::size_t calciumNitrate = 0, potassiumNitrate = 1, magnesiumSulfate = 2,
                             potassiumSulfate = 3, magnesiumNitrate = 4;

/// Two stock tanks of 10 L at 1:100 with water that holds nothing, on a scale of 0.1 g.
inline core::RunPlan twoTanks() {
  core::RunPlan plan;
  plan.shelf = {salt("Ca(NO3)2.4H2O"), salt("KNO3"), salt("MgSO4.7H2O"), salt("K2SO4"),
                salt("Mg(NO3)2.6H2O")};
  const char* ids[] = {"cn", "kn", "ms", "ks", "mn"};
  for (std::size_t i = 0; i < plan.shelf.size(); ++i)
    plan.shelf[i].id = plan.shelf[i].name = ids[i];
  plan.water = core::pureWater();
  const auto volume = core::Volume::fromLitres(10);
  plan.vessels = {core::runVessel("A", volume, 100, plan.shelf, {grams(800), grams(100), {}, {}, {}}),
                  core::runVessel("B", volume, 100, plan.shelf, {{}, grams(200), grams(400), {}, {}})};
  core::setTolerances(plan, grams(0.1));
  for (auto& vessel : plan.vessels)
    for (auto& step : vessel.steps)
      step.readability = grams(0.1);
  return plan;
}

inline std::vector<core::RunEvent> eventsOf(const std::vector<core::RunDeed>& deeds) {
  std::vector<core::RunEvent> out;
  for (const auto& deed : deeds)
    out.push_back({static_cast<std::int64_t>(1000 * out.size()), "K.T.", deed});
  return out;
}

inline core::RunState stateAfter(const core::RunPlan& plan, const std::vector<core::RunDeed>& deeds) {
  auto state = core::runState(plan, eventsOf(deeds));
  EXPECT_TRUE(static_cast<bool>(state)) << (state ? "" : state.problem().where);
  return state ? std::move(state).value() : core::RunState{};
}

/// Every step of a plan just as it is asked for; `weigh` may alter what is weighed.
inline std::vector<core::RunDeed> goodRun(const core::RunPlan& plan, double times = 1) {
  namespace did = core::did;
  std::vector<core::RunDeed> out{did::Prepared{}};
  for (std::size_t v = 0; v < plan.vessels.size(); ++v) {
    const auto& vessel = plan.vessels[v];
    if (!vessel.isBag) out.push_back(did::Poured{v, core::waterFirst(vessel)});
    for (const auto& step : vessel.steps) {
      out.push_back(did::Weighed{step.product, step.planned * times, "", true});
      out.push_back(did::Tipped{step.product, v});
      if (!vessel.isBag) out.push_back(did::Clear{step.product, v});
    }
    if (vessel.isBag) continue;
    out.push_back(did::ToppedUp{v, vessel.volume});
    out.push_back(did::Read{v, {}, 5.8});
  }
  return out;
}

} // namespace butte::test
