#include "stations/bench/run_deeds.h"

#include "bench/weigh_plan.h"
#include "edits/bench_edits.h"
#include "stations/bench/run_words.h"

namespace butte::app {

using core::RunPhase;

std::optional<core::RunDeed> plainDeed(const BenchEdits& run, std::optional<core::Volume> typed) {
  const auto next = run.at();
  const auto& vessel = run.plan().vessels[next.vessel];
  switch (next.phase) {
  case RunPhase::Prepare:
    return core::did::Prepared{};
  case RunPhase::Pour:
    return core::did::Poured{next.vessel, typed.value_or(waterToBeginWith(run))};
  case RunPhase::Tip:
    return core::did::Tipped{vessel.steps[next.step].product, next.vessel};
  case RunPhase::Dissolve:
    return core::did::Clear{vessel.steps[next.step].product, next.vessel};
  case RunPhase::TopUp:
    return core::did::ToppedUp{next.vessel, typed.value_or(vessel.volume * run.state().ratio)};
  case RunPhase::Weigh:
  case RunPhase::Measure:
  case RunPhase::Decide:
  case RunPhase::Done:
    break;
  }
  return std::nullopt;
}

std::optional<core::Mass> massBySpoons(const BenchEdits& run) {
  if (run.at().phase != RunPhase::Weigh) return std::nullopt;
  const auto measured = spoonsNow(run);
  return measured ? std::optional(measured->shown) : std::nullopt;
}

} // namespace butte::app
