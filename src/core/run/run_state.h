#pragma once
#include "base/result.h"
#include "run/run_event.h"
#include "run/run_plan.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// What became of one product in one vessel.
struct StepState {
  Mass in;              ///< tipped so far
  bool clear = false;   ///< all of it is dissolved
  bool skipped = false; ///< nothing more of it is wanted
  bool accepted = false;
  std::optional<std::int64_t> tippedAtMilliseconds; ///< the last of it: since when it dissolves
};

struct VesselState {
  Volume water;               ///< poured so far
  std::vector<StepState> of;  ///< parallel to the plan's shelf: also what was never planned for it
  std::optional<Volume> full; ///< once it is made up
  std::optional<std::int64_t> fullAtMilliseconds; ///< since when it rests
  std::vector<did::Read> read;
};

/// A lot, and how much of a product came from it.
struct LotUse {
  std::size_t product = 0;
  std::string lot;
  Mass mass;
  std::optional<std::size_t> vessel{}; ///< nothing: it is in the cup still
  bool discarded = false;              ///< poured away with its vessel: gone from the shelf all the same
};

/// What the person does next.
enum class RunPhase {
  Prepare, ///< before anything is done
  Pour,
  Weigh,
  Decide, ///< too much of it: take out, accept, or make the whole run larger (run_advice.h)
  Tip,
  Dissolve,
  TopUp,
  Measure,
  Done
};

struct RunNext {
  RunPhase phase = RunPhase::Pour;
  std::size_t vessel = 0;
  std::size_t step = 0; ///< of the vessel's plan, from Weigh to Dissolve
};

/// Everything that is known of a run after its events; a pure function of plan and events.
struct RunState {
  double ratio = 1; ///< all planned weights and volumes times this
  std::vector<VesselState> vessels;
  std::vector<Mass> cup; ///< weighed and not tipped yet, parallel to the shelf
  /// Parallel to the shelf: the vessel that the cup was accepted for as it is, until it is tipped.
  std::vector<std::optional<std::size_t>> cupAcceptedFor;
  std::vector<Mass> taken;  ///< out of the bags in all, parallel to the shelf
  std::vector<LotUse> lots; ///< of all that was taken out of the bags
  std::string who;
  bool paused = false, finished = false;
  RunNext next;
};

/// Where a run stands. Errors name the event ("events[4]"): OutOfRange for an index, weight or volume that
/// can't be, MissingKey for a cup that holds nothing of what is tipped or taken out, NotOneOf for an event
/// after the end or one that strikes what can't be struck.
Result<RunState> runState(const RunPlan& plan, const std::vector<RunEvent>& events);

/// How long a vessel rests before its meters are believed (common practice: mixing goes on for minutes to an
/// hour).
inline constexpr int usualRestSeconds = 600;

/// A step's weight as it is wanted now.
Mass wantedOf(const RunState& state, const RunStep& step);
/// The vessel that the cup of a product is for: that which it was accepted for, else the first that still
/// lacks some of it, else the last that takes it. Nothing for a product that no vessel takes.
std::optional<std::size_t> vesselOfCup(const RunState& state, const RunPlan& plan, std::size_t product);
/// What a step has: in its vessel, and in the cup where that is for it.
Mass hasOf(const RunState& state, const RunPlan& plan, std::size_t vessel, std::size_t step);
/// In how many loads a step goes onto its scale, all alike.
int loadsOf(const RunState& state, const RunStep& step);
/// What comes onto the scale next: all that is missing, or what the load in hand lacks.
Mass toWeighNow(const RunState& state, const RunPlan& plan, std::size_t vessel, std::size_t step);
/// What a vessel is made up to, else what it will be.
Volume madeUpTo(const RunPlan& plan, const RunState& state, std::size_t vessel);
/// While something dissolves: the next thing that can be weighed meanwhile, into a cup of its own. While a
/// vessel rests before it is read: the next thing of a later vessel. Nothing where there is no such thing, or
/// it lies in its cup already.
std::optional<RunNext> weighMeanwhile(const RunPlan& plan, const RunState& state);
/// What of it is still to be weighed; below zero when there is too much, in the vessel and in the cup.
Mass stillToWeigh(const RunState& state, const RunPlan& plan, std::size_t vessel, std::size_t step);

} // namespace butte::core
