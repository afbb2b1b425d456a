#pragma once
#include "model/sim_bench.h"
#include "practice/truth_state.h"

#include <functional>
#include <optional>
#include <vector>

namespace butte::sim {

/// What pens are checked in: 0.01 mol/kg of KCl, as sold for pens, and a neutral buffer (both common
/// practice).
inline core::Conductivity penStandard() {
  return core::Conductivity::fromMilliSiemensPerCm(1.413);
}
inline constexpr double penBufferPh = 7;

/// A bench that is none, for a practice run: tubs, cups, vessels and a pen around the stand-in scale, with
/// mishaps that wait at their steps. The hand acts on it; what truly happens is told by onTruth, and is all
/// that is needed to stand it up again.
class PracticeWorld {
public:
  PracticeWorld(core::RunPlan plan, std::vector<core::PlannedMishap> mishaps, SimBench& bench);

  std::function<void(const core::TrueDeed& deed)> onTruth;

  const core::RunPlan& plan() const { return m_plan; }
  const core::TrueState& truth() const { return m_truth; }
  std::size_t happenings() const { return m_events.size(); }
  /// After what happened before the program went; the cup stands on the scale again.
  void restore(const std::vector<core::TrueEvent>& events);
  /// What the run is at, by its product: its steps may be more than the plan's once one came in another's
  /// place.
  struct At {
    core::RunPhase phase = core::RunPhase::Prepare;
    std::size_t vessel = 0, product = 0;
  };
  /// Mishaps begin at their steps; `ratio`: how far the run is scaled.
  void standAt(const At& at, double ratio);
  /// What lies on the scale is told so far; before anything is told of it.
  void settle();

  void wear(core::Gear piece);

  /// The tub by its lid.
  void takeTub(std::size_t product);
  std::optional<std::size_t> tubInHand() const { return m_tub; }
  /// A close look into it: what it truly holds. Another than the lid says is put away, the right one taken.
  std::optional<std::size_t> lookIntoTub();

  void layCup(); ///< an empty one onto the scale
  void tare() { m_bench.apply(act::Tare{}); }
  void pour(core::Mass mass);
  void spoonOut(core::Mass mass);
  void emptyCup(); ///< into the waste

  /// Two filled cups stand there: the labels of the nearer and of the other one.
  bool isBetweenCups() const { return m_between; }
  std::size_t nearerCup() const { return m_nearer; }
  std::size_t fartherCup() const { return m_own; }
  /// The one with this label.
  void takeCup(std::size_t product);

  void tip(std::size_t vessel); ///< the cup in hand: the nearer one
  void pourWater(std::size_t vessel, core::Volume volume);
  void stir(std::size_t vessel);

  void shutWindow();
  /// Into the standard and the buffer.
  void dipInStandard();
  void calibrate();
  /// Into a vessel, made up to `full`.
  void dip(std::size_t vessel, core::Volume full);

private:
  void standCupsAgain();
  void happen(const core::TrueDeed& deed);
  const core::PlannedMishap* waiting(core::Mishap mishap, std::size_t vessel, std::size_t product) const;
  void begin(const core::PlannedMishap& what);
  std::size_t inTub() const;

  core::RunPlan m_plan;
  std::vector<core::PlannedMishap> m_mishaps;
  SimBench& m_bench;
  std::vector<core::TrueEvent> m_events;
  core::TrueState m_truth;
  At m_at;
  double m_ratio = 1;
  std::optional<std::size_t> m_tub;
  bool m_between = false, m_takesNearer = false;
  std::size_t m_nearer = 0, m_own = 0;
};

} // namespace butte::sim
