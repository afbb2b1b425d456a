#pragma once
#include "base/result.h"
#include "model/pen_model.h"
#include "model/scale_model.h"

#include <string_view>
#include <variant>
#include <vector>

namespace butte::sim {

/// What can be done to the stand-ins; a line of a scenario each (docs/formats/sim_scenarios.md).
namespace act {
struct LayOn {
  core::Mass container;
};
struct Pour {
  core::Mass mass;
  double seconds = 0;
};
struct TakeOut {
  core::Mass mass;
};
struct Lift {};
struct PutBack {};
struct Tip {
  double leftShare = 0;
};
struct Tare {};
struct Pull {
  core::Mass upward;
};
struct Draught {
  double seconds = 0;
};
struct Drift {
  core::Mass perMinute;
};
struct Span {
  double factor = 1;
};
struct ShowIn {
  std::string unit;
};
struct Unplug {
  double seconds = 0;
};
struct Dip {
  core::Conductivity at25;
  double ph = 7;
  core::Temperature temperature = core::Temperature::fromCelsius(20);
};
struct PenOut {};
struct Calibrate {
  double slope = 1, phOffset = 0;
};
struct PenDrift {
  double phPerMinute = 0;
};
} // namespace act

using Act = std::variant<act::LayOn, act::Pour, act::TakeOut, act::Lift, act::PutBack, act::Tip, act::Tare,
                         act::Pull, act::Draught, act::Drift, act::Span, act::ShowIn, act::Unplug, act::Dip,
                         act::PenOut, act::Calibrate, act::PenDrift>;

struct TimedAct {
  double atSeconds = 0;
  Act act;
};

/// A scale and a pen, and what happens to them by and by.
class SimBench {
public:
  explicit SimBench(const ScaleKind& kind = {}, std::uint64_t seed = 1) : scale(kind, seed), pen(seed + 1) {}

  void apply(const Act& what);
  /// Acts to come, by their time; from now on counted anew.
  void play(std::vector<TimedAct> scenario);
  void advance(double seconds);
  bool isUnplugged() const { return m_unpluggedSeconds > 0; }
  bool isPlaying() const { return m_next < m_scenario.size(); }

  ScaleModel scale;
  PenModel pen;

private:
  std::vector<TimedAct> m_scenario;
  std::size_t m_next = 0;
  double m_seconds = 0, m_unpluggedSeconds = 0;
};

/// Reads a scenario. Errors name the line ("line 3"): NotOneOf for an act that is not known or lacks a part,
/// OutOfRange for an amount that can't be.
core::Result<std::vector<TimedAct>> parseScenario(std::string_view text);

} // namespace butte::sim
