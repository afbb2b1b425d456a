#pragma once
#include "dose/reading_causes.h"
#include "formula/uncertainty.h"
#include "run/run_state.h"

#include <optional>
#include <vector>

namespace butte::core {

/// What one product came to in one vessel.
struct RunDeviation {
  std::size_t vessel = 0, product = 0;
  Mass wanted, actual; ///< wanted: nothing where it was not planned there
  std::optional<double> percent;
};

/// One element of the feed as it was made.
struct ElementResult {
  Nutrient nutrient{};
  double plannedMgPerLitre = 0, actualMgPerLitre = 0, plusMinusMgPerLitre = 0;
  double offPercent = 0; ///< actual against planned
  /// What moved it most: an index into RunResult::deviations; nothing where it is as planned.
  std::optional<std::size_t> movedBy;
};

/// What the run made of its plan.
struct RunResult {
  NutrientAmounts plannedMgPerLitre, actualMgPerLitre; ///< of the feed, its water included
  Conductivity planned, actual;                        ///< of the feed, as computed
  Conductivity plusMinus;                              ///< of the actual
  std::vector<RunDeviation> deviations; ///< in the order of the plan, then what was not planned
  std::vector<ElementResult> elements;  ///< planned or there, in the order of a feed sheet
};

/// By what is in the vessels, each made up to what it is (else to what it will be). `plan` is the one in
/// effect (withSubstitutes()), `first` the one before anything came in another's place. The +- has the usual
/// limits of contents (usualErrors()), half a step of each scale for every load, 1 % of a vessel's mark and
/// of dosing a stock, and the water's 5 % (common practice); two standard deviations.
RunResult runResult(const RunPlan& plan, const RunState& state, const RunPlan& first);
inline RunResult runResult(const RunPlan& plan, const RunState& state) {
  return runResult(plan, state, plan);
}

/// How a run came out.
enum class RunVerdict {
  AsPlanned,      ///< no element off by more than 2 %, or than its own +-
  Close,          ///< none by more than 10 %: plants do not tell
  Off,            ///< some element is
  FallsOut,       ///< something lies on a vessel's floor
  ReadsOtherwise, ///< weights are right, a meter says otherwise by more than it may be off (5 %)
};

/// What a meter said of a vessel of feed against what is in it.
struct RunReading {
  std::size_t vessel = 0;
  ReadingGap gap;
  std::vector<PossibleCause> causes; ///< empty: within what a pen may be off
};

struct RunJudgement {
  RunVerdict verdict = RunVerdict::AsPlanned;
  std::vector<std::size_t> check;    ///< indices into RunResult::elements that are off, the farthest first
  std::vector<RunReading> readings;  ///< vessels of feed that were read
  std::vector<std::size_t> fallenIn; ///< vessels with something on the floor
};

/// Limits are common practice: 2 % is what weighing is asked for, 10 % what a feed may be off before plants
/// show it, 5 % how close a pen reads. Elements that are in the feed by the way (sodium, chloride) and urea
/// do not count.
RunJudgement judged(const RunPlan& plan, const RunState& state, const RunResult& result);

} // namespace butte::core
