#pragma once
#include "units/quantity.h"

#include <cstdint>
#include <random>
#include <string>

namespace butte::sim {

/// What kind of a scale stands in.
struct ScaleKind {
  core::Mass step = core::Mass::fromGrams(0.1);
  core::Mass capacity = core::Mass::fromKilograms(6);
  std::string unit = "g";   ///< "g", "kg", "oz", "lb", "lb:oz"
  double noiseSteps = 0.3;  ///< standard deviation of the display's flicker
  double lagSeconds = 0.15; ///< of its filter
};

/// A scale that is none: what lies on it, what it shows, and what makes it show something else. Moves only by
/// advance(); the same seed and the same acts give the same lines.
class ScaleModel {
public:
  explicit ScaleModel(ScaleKind kind = {}, std::uint64_t seed = 1);

  void layOn(core::Mass container); ///< an empty container, in the place of what lies there
  void pour(core::Mass mass, double seconds);
  void takeOut(core::Mass mass); ///< of what is in the container, with a spoon
  void lift();                   ///< the container and what is in it, off
  void putBack();
  void tip(double leftShare); ///< lifted, emptied but for a share that sticks, and put back
  void tare();
  void pull(core::Mass upward); ///< a cord that lifts; a hand that leans is below zero
  void draught(double seconds);
  void setDrift(core::Mass perMinute) { m_driftPerSecond = perMinute * (1.0 / 60); }
  void setSpan(double factor) { m_span = factor; }      ///< shows so many times what lies there
  void setStep(core::Mass step) { m_kind.step = step; } ///< another scale is taken
  void setUnit(const std::string& unit) { m_kind.unit = unit; }

  void advance(double seconds);
  /// "ST,NT,+  123.4 g", "US,...", and "OL" above its capacity.
  std::string line() const;

  core::Mass content() const { return m_content; } ///< what truly is in the container
  bool isLifted() const { return m_lifted; }
  const ScaleKind& kind() const { return m_kind; }

private:
  core::Mass load() const;

  ScaleKind m_kind;
  std::mt19937_64 m_random;
  core::Mass m_container, m_content, m_tare, m_pull, m_drift, m_driftPerSecond;
  core::Mass m_pouring; ///< still in the air
  double m_pourSeconds = 0, m_draughtSeconds = 0, m_span = 1;
  bool m_lifted = false;
  double m_filtered = 0, m_flicker = 0, m_slow = 0; ///< grams
};

} // namespace butte::sim
