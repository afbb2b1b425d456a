#include "scale/weigh_watch.h"

#include "scale/scale_words.h"

#include <algorithm>
#include <cmath>

namespace butte::devices {

using core::Mass;

namespace {

constexpr std::int64_t rememberedMilliseconds = 4000;
/// A scale's own mark comes late already: it has to stand for this long only.
constexpr std::int64_t markMilliseconds = 300;
constexpr std::size_t leastLines = 3, mostLines = 400;
constexpr double stillSteps = 3, zeroSteps = 2, liftedSteps = 5;
constexpr double nearShare = 0.1; ///< of what is wanted: from here on slowly
/// A container is laid on in less than this; salt takes longer, unless a scoop of it falls at once.
constexpr std::int64_t leapMilliseconds = 1000;

Mass size(Mass mass) {
  return mass < Mass{} ? Mass{} - mass : mass;
}

} // namespace

void WeighWatch::setTask(const WeighTask& task) {
  m_task = task;
  m_rightSince.reset();
}

/// The scale's as stated, or what its display shows where that is coarser.
Mass WeighWatch::step() const {
  if (m_last.unit.empty()) return m_task.step;
  const double digit =
      gramsIn(m_last.unit == "lb:oz" ? "oz" : m_last.unit) * std::pow(10.0, -m_last.decimals);
  return std::max(m_task.step, Mass::fromGrams(digit));
}

/// What still counts as nothing: two steps of the display, but never as much as a third of what is wanted.
Mass WeighWatch::nearZero() const {
  const auto steps = step() * zeroSteps;
  return m_task.wanted > Mass{} ? std::min(steps, m_task.wanted * (1.0 / 3)) : steps;
}

void WeighWatch::take(const ScaleReading& reading, std::int64_t at) {
  m_heard = true;
  m_last = reading;
  m_lastAt = at;
  if (!reading.mass) {
    m_rightSince.reset();
    if (reading.status != ScaleStatus::Busy) m_shown.clear();
    return;
  }
  m_shown.push_back({at, *reading.mass, reading.stable});
  while (m_shown.size() > mostLines || m_shown.front().at < at - rememberedMilliseconds)
    m_shown.pop_front();
  learnFrom(m_shown.back());
}

void WeighWatch::learnFrom(const Shown& shown) {
  const bool still = isStill(shown.at);
  const auto fresh = shown.mass - m_counted;
  // Below zero and back: what was lifted off was tared.
  if (shown.mass < Mass{} - step() * liftedSteps) m_containerKnown = true;
  if (still && size(shown.mass) <= nearZero() && m_counted > Mass{}) { // tared, or the cup is empty
    m_counted = m_plateau = Mass{};
    m_zeroSeen = true;
  }
  if (size(fresh) <= nearZero()) {
    // A load that goes to zero without the scale going below it: tare was pressed.
    if (!m_zeroSeen && still && m_plateau > nearZero()) m_containerKnown = true;
    m_zeroSeen = m_zeroSeen || still;
    m_containerDoubt = false;
    m_leftZeroAt.reset();
    if (still) m_plateau = shown.mass;
    m_rightSince.reset();
    return;
  }
  if (!m_leftZeroAt) m_leftZeroAt = shown.at;
  const bool first = m_zeroSeen && still && m_plateau <= m_counted + nearZero();
  if (first && fresh > Mass{} && !m_containerKnown) {
    const auto leapt = std::find_if(m_shown.begin(), m_shown.end(), [&](const Shown& s) {
      return s.at >= *m_leftZeroAt && size(s.mass - shown.mass) <= step() * stillSteps;
    });
    m_containerDoubt = leapt != m_shown.end() && leapt->at - *m_leftZeroAt < leapMilliseconds;
  }
  if (still) m_plateau = std::max(m_plateau, shown.mass);
  const bool right = m_zeroSeen && still && size(fresh - m_task.wanted) <= m_task.tolerance;
  if (!right)
    m_rightSince.reset();
  else if (!m_rightSince)
    m_rightSince = shown.at;
}

Mass WeighWatch::spreadSince(std::int64_t from) const {
  Mass least, most;
  bool any = false;
  for (const auto& shown : m_shown) {
    if (shown.at < from) continue;
    least = any ? std::min(least, shown.mass) : shown.mass;
    most = any ? std::max(most, shown.mass) : shown.mass;
    any = true;
  }
  return most - least;
}

bool WeighWatch::isStill(std::int64_t at) const {
  // A scale that sends seldom has to be seen alike three times, however long that takes.
  const auto from = at - stillMilliseconds;
  const auto since =
      std::count_if(m_shown.begin(), m_shown.end(), [&](const Shown& s) { return s.at >= from; });
  if (m_shown.size() < leastLines || m_shown.front().at > from) return false;
  const auto first = m_shown[m_shown.size() - std::max<std::size_t>(leastLines, since)].at;
  const bool moves = std::any_of(m_shown.begin(), m_shown.end(), [&](const Shown& s) {
    return s.at >= at - markMilliseconds && s.stable.has_value() && !*s.stable;
  });
  return !moves && spreadSince(first) <= step() * (stillSteps + 1e-6);
}

/// Much way for little progress, up and down by more than the display's own flicker.
bool WeighWatch::isBackAndForth() const {
  constexpr double flickerSteps = 4, manyTimes = 3, leastTurns = 4;
  if (m_shown.size() < leastLines || m_shown.back().at - m_shown.front().at < rememberedMilliseconds / 2)
    return false;
  const auto flicker = std::max(step() * flickerSteps, m_task.tolerance);
  Mass way, turnedAt = m_shown.front().mass;
  int turns = 0, direction = 0;
  for (std::size_t i = 1; i < m_shown.size(); ++i) {
    way = way + size(m_shown[i].mass - m_shown[i - 1].mass);
    const auto moved = m_shown[i].mass - turnedAt;
    if (size(moved) < flicker) continue;
    const int now = moved > Mass{} ? 1 : -1;
    if (direction != 0 && now != direction) ++turns;
    direction = now;
    turnedAt = m_shown[i].mass;
  }
  return turns >= leastTurns && way > size(m_shown.back().mass - m_shown.front().mass) * manyTimes;
}

WatchState WeighWatch::weightless() const {
  switch (m_last.status) {
  case ScaleStatus::Overload:
    return WatchState::Overload;
  case ScaleStatus::Underload:
    return WatchState::Underload;
  case ScaleStatus::Busy:
    return WatchState::Busy;
  case ScaleStatus::Fault:
    return WatchState::Fault;
  case ScaleStatus::Weight:
  case ScaleStatus::Nothing:
    break;
  }
  return WatchState::Unreadable;
}

WatchState WeighWatch::stateOf(Mass fresh, bool still) const {
  if (fresh < Mass{} - std::max(step() * liftedSteps, m_task.tolerance)) return WatchState::Lifted;
  if (!m_zeroSeen && size(fresh) > nearZero()) return still ? WatchState::NotZero : WatchState::Waiting;
  if (fresh <= nearZero() && fresh + m_task.tolerance < m_task.wanted)
    return still ? WatchState::Ready : WatchState::Waiting;
  const auto missing = m_task.wanted - fresh;
  if (missing < Mass{} - m_task.tolerance) return WatchState::TooMuch;
  if (missing <= m_task.tolerance) return still ? WatchState::Right : WatchState::Settling;
  return missing < m_task.wanted * nearShare ? WatchState::Near : WatchState::Filling;
}

WatchNow WeighWatch::now(std::int64_t at) const {
  WatchNow out;
  if (!m_heard || at - m_lastAt > silentAfterMilliseconds) return out;
  out.unit = m_last.unit.empty() ? out.unit : m_last.unit;
  out.decimals = m_last.decimals;
  if (!m_last.mass) {
    out.state = weightless();
    return out;
  }
  out.shown = *m_last.mass;
  out.fresh = out.shown - m_counted;
  out.still = isStill(m_lastAt);
  out.state = stateOf(out.fresh, out.still);
  const auto less = m_plateau - out.shown;
  const bool wasTooMuch = m_plateau - m_counted > m_task.wanted + m_task.tolerance; // taken out by the hand
  constexpr double nearly = 1 + 1e-6;
  if (step() * 0.5 > m_task.tolerance * nearly && m_task.wanted > Mass{})
    out.hint = WatchHint::TooCoarse;
  else if (m_containerDoubt)
    out.hint = WatchHint::LooksLikeContainer;
  else if (isBackAndForth())
    out.hint = WatchHint::MovesUpAndDown;
  else if (out.still && !wasTooMuch && out.state != WatchState::Lifted && out.fresh > nearZero() &&
           less > step() * stillSteps + m_task.tolerance * 0.5) {
    out.hint = WatchHint::ShowsLess;
    out.lessThanBefore = less;
  }
  out.mayCapture = out.state == WatchState::Right && out.hint == WatchHint::None && m_rightSince &&
                   at - *m_rightSince >= captureAfterMilliseconds;
  return out;
}

void WeighWatch::count(std::int64_t at) {
  if (!m_last.mass || at - m_lastAt > silentAfterMilliseconds) return;
  m_counted = m_plateau = *m_last.mass;
  m_rightSince.reset();
  m_leftZeroAt.reset();
  m_containerDoubt = false;
  m_zeroSeen = true;
}

void WeighWatch::emptied() {
  m_counted = m_plateau = Mass{};
  m_zeroSeen = false;
  m_rightSince.reset();
  m_leftZeroAt.reset();
}

void WeighWatch::takeAsZero(std::int64_t at) {
  count(at);
  m_containerKnown = true;
}

void WeighWatch::lost() {
  m_shown.clear();
  m_heard = false;
  m_rightSince.reset();
}

} // namespace butte::devices
