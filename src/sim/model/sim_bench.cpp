#include "model/sim_bench.h"

#include <algorithm>

namespace butte::sim {

namespace {

struct Doing {
  SimBench& bench;
  double& unplugged;

  void operator()(const act::LayOn& a) const { bench.scale.layOn(a.container); }
  void operator()(const act::Pour& a) const { bench.scale.pour(a.mass, a.seconds); }
  void operator()(const act::TakeOut& a) const { bench.scale.takeOut(a.mass); }
  void operator()(const act::Lift&) const { bench.scale.lift(); }
  void operator()(const act::PutBack&) const { bench.scale.putBack(); }
  void operator()(const act::Tip& a) const { bench.scale.tip(a.leftShare); }
  void operator()(const act::Tare&) const { bench.scale.tare(); }
  void operator()(const act::Pull& a) const { bench.scale.pull(a.upward); }
  void operator()(const act::Draught& a) const { bench.scale.draught(a.seconds); }
  void operator()(const act::Drift& a) const { bench.scale.setDrift(a.perMinute); }
  void operator()(const act::Span& a) const { bench.scale.setSpan(a.factor); }
  void operator()(const act::ShowIn& a) const { bench.scale.setUnit(a.unit); }
  void operator()(const act::Unplug& a) const { unplugged = a.seconds; }
  void operator()(const act::Dip& a) const { bench.pen.dip(a.at25, a.ph, a.temperature); }
  void operator()(const act::PenOut&) const { bench.pen.takeOut(); }
  void operator()(const act::Calibrate& a) const { bench.pen.setCalibration(a.slope, a.phOffset); }
  void operator()(const act::PenDrift& a) const { bench.pen.setDrift(a.phPerMinute); }
};

} // namespace

void SimBench::apply(const Act& what) {
  std::visit(Doing{*this, m_unpluggedSeconds}, what);
}

void SimBench::play(std::vector<TimedAct> scenario) {
  std::stable_sort(scenario.begin(), scenario.end(),
                   [](const TimedAct& a, const TimedAct& b) { return a.atSeconds < b.atSeconds; });
  m_scenario = std::move(scenario);
  m_next = 0;
  m_seconds = 0;
}

void SimBench::advance(double seconds) {
  m_seconds += seconds;
  m_unpluggedSeconds = std::max(0.0, m_unpluggedSeconds - seconds);
  for (; m_next < m_scenario.size() && m_scenario[m_next].atSeconds <= m_seconds; ++m_next)
    apply(m_scenario[m_next].act);
  scale.advance(seconds);
  pen.advance(seconds);
}

} // namespace butte::sim
