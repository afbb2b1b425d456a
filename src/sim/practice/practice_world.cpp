#include "practice/practice_world.h"

#include <algorithm>

namespace butte::sim {

using core::Mass;
using core::Mishap;
using core::RunPhase;
namespace truly = core::truly;

namespace {
constexpr double cupGrams = 38, untilShutSeconds = 3600, roomCelsius = 20, neutralPh = 7;
constexpr double wrongSlope = 0.86, wrongPhOffset = 0.4;
constexpr double leastGrams = 1e-6;
} // namespace

PracticeWorld::PracticeWorld(core::RunPlan plan, std::vector<core::PlannedMishap> mishaps, SimBench& bench)
    : m_plan(std::move(plan)), m_mishaps(std::move(mishaps)), m_bench(bench),
      m_truth(core::trueState(m_plan, {})) {}

void PracticeWorld::restore(const std::vector<core::TrueEvent>& events) {
  m_events = events;
  m_truth = core::trueState(m_plan, m_events);
  m_bench.apply(act::LayOn{Mass::fromGrams(cupGrams)});
  m_bench.apply(act::Pour{m_truth.inCup(), 0});
  standCupsAgain();
  if (m_truth.isOn(Mishap::Draught)) m_bench.apply(act::Draught{untilShutSeconds});
  if (m_truth.isOn(Mishap::DriftingPen)) m_bench.apply(act::Calibrate{wrongSlope, wrongPhOffset});
}

/// Two cups stand there from the mishap on until one of them is tipped.
void PracticeWorld::standCupsAgain() {
  for (const auto& event : m_events) {
    const auto* happened = std::get_if<truly::Happened>(&event.deed);
    if (happened && happened->what.mishap == Mishap::SwappedCups) {
      m_between = m_takesNearer = true;
      m_nearer = happened->what.other;
      m_own = happened->what.product;
    }
    const auto* mended = std::get_if<truly::Mended>(&event.deed);
    if (mended && mended->mishap == Mishap::SwappedCups) m_takesNearer = false;
    if (std::holds_alternative<truly::Tipped>(event.deed)) m_between = m_takesNearer = false;
  }
}

void PracticeWorld::happen(const core::TrueDeed& deed) {
  m_events.push_back({0, 0, deed});
  m_truth = core::trueState(m_plan, m_events);
  if (onTruth) onTruth(deed);
}

const core::PlannedMishap* PracticeWorld::waiting(Mishap mishap, std::size_t vessel,
                                                  std::size_t product) const {
  for (const auto& one : m_mishaps) {
    if (one.mishap != mishap) continue;
    const bool here = mishap == Mishap::DriftingPen || (one.vessel == vessel && one.product == product);
    const bool begun =
        std::find(m_truth.happened.begin(), m_truth.happened.end(), one) != m_truth.happened.end();
    if (here && !begun) return &one;
  }
  return nullptr;
}

void PracticeWorld::begin(const core::PlannedMishap& what) {
  happen(truly::Happened{what});
  if (what.mishap == Mishap::Draught) m_bench.apply(act::Draught{untilShutSeconds});
  if (what.mishap == Mishap::DriftingPen) m_bench.apply(act::Calibrate{wrongSlope, wrongPhOffset});
}

void PracticeWorld::standAt(const At& at, double ratio) {
  m_at = at;
  m_ratio = ratio;
  if (at.phase == RunPhase::Measure) {
    if (const auto* pen = waiting(Mishap::DriftingPen, at.vessel, 0)) begin(*pen);
    return;
  }
  const bool salt = at.phase == RunPhase::Weigh || at.phase == RunPhase::Tip;
  if (!salt) return;
  if (at.phase == RunPhase::Weigh)
    if (const auto* draught = waiting(Mishap::Draught, at.vessel, at.product)) begin(*draught);
  if (at.phase != RunPhase::Tip) return;
  if (const auto* swapped = waiting(Mishap::SwappedCups, at.vessel, at.product)) {
    begin(*swapped);
    m_between = m_takesNearer = true;
    m_nearer = swapped->other;
    m_own = at.product;
  }
}

std::size_t PracticeWorld::inTub() const {
  for (const auto& one : m_truth.happened)
    if (one.mishap == Mishap::MislabelledCup && m_tub == one.product && !m_truth.isMended(one.mishap))
      return one.other;
  return *m_tub;
}

void PracticeWorld::settle() {
  const auto known = m_truth.inCup();
  const auto more = m_bench.scale.content() - known;
  if (!m_tub || std::abs(more.grams()) < leastGrams) return;
  if (more > Mass{}) return happen(truly::Filled{inTub(), more});
  const auto cup = m_truth.cup; // a spoon takes of all that lies mixed in it
  for (std::size_t p = 0; p < cup.size(); ++p)
    if (cup[p] > Mass{}) happen(truly::Filled{p, more * (cup[p] / known)});
}

void PracticeWorld::wear(core::Gear piece) {
  if (!m_truth.wears[static_cast<std::size_t>(piece)]) happen(truly::Wore{piece});
}

void PracticeWorld::takeTub(std::size_t product) {
  settle();
  m_tub = product;
  if (const auto* wrong = waiting(Mishap::MislabelledCup, m_at.vessel, product)) begin(*wrong);
}

std::optional<std::size_t> PracticeWorld::lookIntoTub() {
  if (!m_tub) return std::nullopt;
  settle();
  const auto holds = inTub();
  if (holds != *m_tub) happen(truly::Mended{Mishap::MislabelledCup});
  return holds;
}

void PracticeWorld::layCup() {
  settle();
  emptyCup();
  m_bench.apply(act::LayOn{Mass::fromGrams(cupGrams)});
}

void PracticeWorld::pour(Mass mass) {
  if (m_tub) m_bench.apply(act::Pour{mass, 0});
}

void PracticeWorld::spoonOut(Mass mass) {
  if (!m_tub) return;
  settle();
  m_bench.apply(act::TakeOut{mass});
  settle();
}

void PracticeWorld::emptyCup() {
  settle();
  for (std::size_t p = 0; p < m_truth.cup.size(); ++p)
    if (m_truth.cup[p] > Mass{}) happen(truly::Filled{p, Mass{} - m_truth.cup[p]});
  m_bench.apply(act::Tip{0});
}

void PracticeWorld::takeCup(std::size_t product) {
  if (!m_between) return;
  m_takesNearer = product == m_nearer;
  if (!m_takesNearer && !m_truth.isMended(Mishap::SwappedCups)) happen(truly::Mended{Mishap::SwappedCups});
}

void PracticeWorld::tip(std::size_t vessel) {
  settle();
  if (m_between && m_takesNearer) {
    const auto own = m_truth.cup;
    Mass planned;
    for (const auto& one : m_plan.vessels)
      for (const auto& step : one.steps)
        if (step.product == m_nearer && planned <= Mass{}) planned = step.planned * m_ratio;
    happen(truly::TookOtherCup{m_nearer, planned});
    happen(truly::Tipped{vessel});
    for (std::size_t p = 0; p < own.size(); ++p) // the right cup stands there still
      if (own[p] > Mass{}) happen(truly::Filled{p, own[p]});
    m_between = m_takesNearer = false;
    return;
  }
  m_between = false;
  for (std::size_t p = 0; p < m_truth.cup.size(); ++p)
    if (m_truth.cup[p] > Mass{})
      if (const auto* stubborn = waiting(Mishap::WontDissolve, vessel, p)) begin(*stubborn);
  happen(truly::Tipped{vessel});
  m_bench.apply(act::Tip{0});
}

void PracticeWorld::pourWater(std::size_t vessel, core::Volume volume) {
  happen(truly::Poured{vessel, volume});
}

void PracticeWorld::stir(std::size_t vessel) {
  happen(truly::Stirred{vessel});
}

void PracticeWorld::shutWindow() {
  m_bench.apply(act::Draught{0});
  if (m_truth.isOn(Mishap::Draught)) happen(truly::Mended{Mishap::Draught});
}

void PracticeWorld::dipInStandard() {
  m_bench.apply(act::Dip{penStandard(), penBufferPh, core::Temperature::fromCelsius(roomCelsius)});
}

void PracticeWorld::calibrate() {
  m_bench.apply(act::Calibrate{});
  if (!m_truth.isMended(Mishap::DriftingPen)) happen(truly::Mended{Mishap::DriftingPen});
}

void PracticeWorld::dip(std::size_t vessel, core::Volume full) {
  if (vessel >= m_truth.vessels.size()) return;
  const auto shows = core::trueReading(m_plan, m_truth.vessels[vessel], full);
  m_bench.apply(act::Dip{shows.conductivity, shows.ph.value_or(neutralPh),
                         core::Temperature::fromCelsius(roomCelsius)});
}

} // namespace butte::sim
