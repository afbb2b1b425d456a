#pragma once
#include "chem/nutrient.h"
#include "practice/truth_state.h"

#include <optional>
#include <utility>
#include <vector>

namespace butte::core {

/// What a moment of a practice run is about.
enum class MomentKind {
  GearBeforeSalt,  ///< goggles, gloves and mask before the first salt left its bag
  WaterBeforeAcid, ///< acid went into water, not water onto acid
  ClearBeforeNext, ///< each salt was told clear only when it was
  PenChecked,      ///< the pens were checked in a standard before they were believed
  Weighed,         ///< a weight that was told otherwise than it lay there, beyond its tolerance
  Mishap,          ///< one of the planned ones
};

/// One moment, to be looked at again.
struct Moment {
  MomentKind kind{};
  std::optional<PlannedMishap> mishap;
  std::size_t vessel = 0, product = 0;
  bool well = false;     ///< seen, and dealt with
  std::size_t truth = 0; ///< so many true events had happened: trueState(plan, events, truth)
  std::size_t told = 0;  ///< so many events had been told
  std::optional<Mass> toldMass, trueMass;
  std::optional<Conductivity> toldReading, trueReading;
};

inline constexpr double fullChemistryPoints = 70, fullSafetyPoints = 30;

/// How a practice run went.
struct Debrief {
  std::vector<Moment> moments; ///< in the order they came; safety before
  NutrientAmounts plannedMgPerLitre, toldMgPerLitre, trueMgPerLitre; ///< of the feed
  /// The true feed's elements that are off the plan by 1 % or more, the farthest first.
  std::vector<std::pair<Nutrient, double>> offPercent;
  double meanOffPercent =
      0;                ///< over N, P, K, Ca, Mg, S and the trace elements that are planned, each 100 at most
  double chemistry = 0; ///< points of 70: none are left where the mean is off by 20 %
  double safety = 0;    ///< points of 30: an equal share for each safety step done
  double points() const { return chemistry + safety; }
};

/// A pure function of what was told and what truly happened. Points are the game's own: no standard weighs
/// safety against ppm.
Debrief debriefOf(const RunPlan& plan, const std::vector<RunEvent>& told,
                  const std::vector<TrueEvent>& truth);

} // namespace butte::core
