#pragma once
#include "chem/nutrient.h"
#include "practice/truth.h"
#include "run/run_state.h"

#include <array>
#include <vector>

namespace butte::core {

/// A stir leaves so much of a salt undissolved of what was; of a stubborn one (Mishap::WontDissolve) more.
/// Chosen so that one or two stirs do for most and half a dozen for the stubborn: a game's figures.
inline constexpr double stirLeaves = 0.1, stubbornStirLeaves = 0.55;
/// What lies undissolved below this share of its salt is not seen any more.
inline constexpr double unseenShare = 0.02;

/// A vessel of the practice bench as it truly is.
struct TrueVessel {
  Volume water;
  std::vector<Mass> in;          ///< parallel to the plan's shelf, dissolved or not
  std::vector<Mass> undissolved; ///< of it
  bool looksClear() const;
};

/// The practice bench as it truly is.
struct TrueState {
  std::array<bool, gearCount> wears{};
  std::vector<Mass> cup; ///< parallel to the shelf
  std::vector<TrueVessel> vessels;
  std::vector<PlannedMishap> happened;
  std::vector<Mishap> mended;
  Mass inCup() const; ///< of all products together
  bool isMended(Mishap mishap) const;
  /// Begun and not ended.
  bool isOn(Mishap mishap) const;
};

/// After the first `count` events. Events that can't be (an index beyond the plan) change nothing.
TrueState trueState(const RunPlan& plan, const std::vector<TrueEvent>& events, std::size_t count);
inline TrueState trueState(const RunPlan& plan, const std::vector<TrueEvent>& events) {
  return trueState(plan, events, events.size());
}

/// What a vessel's meters should show: made up to `full`, what lies undissolved not counted.
struct TrueReading {
  Conductivity conductivity;
  std::optional<double> ph;
};
TrueReading trueReading(const RunPlan& plan, const TrueVessel& vessel, Volume full);

/// The feed as it truly would be: what is dissolved in each vessel over what it was made up to.
NutrientAmounts trueFeed(const RunPlan& plan, const TrueState& truth, const RunState& told);

} // namespace butte::core
