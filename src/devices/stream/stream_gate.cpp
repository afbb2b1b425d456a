#include "stream/stream_gate.h"

#include <algorithm>
#include <cmath>

namespace butte::devices {

namespace {
constexpr std::size_t mostRecent = 5, agreeing = 3, agreeingSlow = 2, mostInWindow = 100000;
constexpr std::int64_t secondsPerDay = 86400, stuckSamples = 50;
/// Of this program's writing: no reading is older (a clock without its battery says 1970 or 2000).
constexpr std::int64_t firstSecond = 1704067200; // 2024-01-01

double limit(double figure, double share, double of) {
  return std::max(figure, share * std::abs(of));
}
} // namespace

GateRules gateRulesFor(std::string_view quantity, std::int64_t everySeconds) {
  GateRules out;
  out.everySeconds = everySeconds;
  if (quantity.substr(0, 2) == "ec") {
    out.least = 0, out.most = 250;
    out.leap = 0.3, out.leapShare = 0.2, out.step = 0.1, out.stepShare = 0.05;
  } else if (quantity.substr(0, 2) == "ph") {
    out.least = 0.5, out.most = 13.5; // both ends of the scale are what a broken glass shows
    out.leap = 0.5, out.step = 0.15;
  } else if (quantity == "temperature" || quantity == "air") {
    out.least = -40, out.most = 70;
    out.leap = 4, out.step = 1;
  } else {
    out.least = 0;
    out.leap = 1, out.leapShare = 0.15, out.step = 0.2, out.stepShare = 0.03;
  }
  return out;
}

double StreamGate::median(std::vector<Sample> samples) {
  const auto middle = samples.begin() + static_cast<std::ptrdiff_t>(samples.size() / 2);
  const auto less = [](const Sample& a, const Sample& b) { return a.value < b.value; };
  std::nth_element(samples.begin(), middle, samples.end(), less);
  if (samples.size() % 2 != 0) return middle->value;
  return (middle->value + std::max_element(samples.begin(), middle, less)->value) / 2;
}

/// A logger that speaks seldom is believed sooner.
std::size_t StreamGate::agreeingNeeded() const {
  if (m_recent.size() < 2) return agreeing;
  const auto apart =
      (m_recent.back().at - m_recent.front().at) / static_cast<std::int64_t>(m_recent.size() - 1);
  return apart * 3 >= m_rules.everySeconds ? agreeingSlow : agreeing;
}

bool StreamGate::isStuck() const {
  return m_last && m_same >= stuckSamples && m_last->at - m_sameSince >= secondsPerDay;
}

void StreamGate::follow(const Sample& sample) {
  const bool same = m_last && m_last->value == sample.value;
  if (!same) m_sameSince = sample.at, m_same = 0;
  ++m_same;
  m_last = sample;
}

void StreamGate::keep(std::int64_t at, double value, std::vector<KeptSample>& out) {
  m_window.clear();
  m_kept = Sample{at, value};
  out.push_back({at, value, isStuck() ? SampleMark::Stuck : SampleMark::Sound});
}

/// One of a stretch stands for all of them.
void StreamGate::keepMarked(const Sample& sample, SampleMark mark, std::vector<KeptSample>& out) {
  if (m_markedAt && sample.at >= *m_markedAt && sample.at - *m_markedAt < m_rules.everySeconds) return;
  m_markedAt = sample.at;
  out.push_back({sample.at, sample.value, mark});
}

void StreamGate::dropDoubts(std::vector<KeptSample>& out) {
  m_wild += static_cast<std::int64_t>(m_doubts.size());
  if (!m_doubts.empty()) keepMarked(m_doubts.front(), SampleMark::Wild, out);
  m_doubts.clear();
}

std::vector<KeptSample> StreamGate::take(std::int64_t at, double value, std::int64_t now) {
  std::vector<KeptSample> out;
  ++m_heard;
  const Sample sample{at, value};
  if (at < firstSecond || at > now + secondsPerDay) {
    ++m_wild;
    if (std::isfinite(value)) keepMarked(sample, SampleMark::Clock, out);
    return out;
  }
  if (!std::isfinite(value) || value < m_rules.least || value > m_rules.most) {
    ++m_wild;
    if (std::isfinite(value)) keepMarked(sample, SampleMark::Wild, out);
    return out;
  }
  if (m_last && at <= m_last->at) {
    constexpr std::int64_t sameMoment = 2;
    if (m_last->at - at <= sameMoment) return out; // several lines within a second say one thing
    // The clock was put back: what follows is a stretch of its own.
    m_window.clear();
    m_kept.reset();
    m_markedAt.reset();
    m_doubts.clear();
    m_sameSince = at;
  }
  follow(sample);
  judge(sample, out);
  return out;
}

void StreamGate::judge(const Sample& sample, std::vector<KeptSample>& out) {
  if (!m_recent.empty()) {
    const double ref = median({m_recent.begin(), m_recent.end()});
    if (std::abs(sample.value - ref) > limit(m_rules.leap, m_rules.leapShare, ref))
      return doubt(sample, ref, out);
  }
  dropDoubts(out);
  m_recent.push_back(sample);
  if (m_recent.size() > mostRecent) m_recent.pop_front();
  if (m_window.size() < mostInWindow) m_window.push_back(sample);
  if (!m_kept)
    keep(sample.at, sample.value, out);
  else if (sample.at - m_kept->at >= m_rules.everySeconds)
    keep(sample.at, median(m_window), out);
  else if (changedForGood())
    keep(sample.at, median({m_window.end() - agreeing, m_window.end()}), out);
}

void StreamGate::doubt(const Sample& sample, double ref, std::vector<KeptSample>& out) {
  if (!m_doubts.empty()) {
    const double theirs = median(m_doubts);
    if (std::abs(sample.value - theirs) > limit(m_rules.leap, m_rules.leapShare, theirs) ||
        (sample.value > ref) != (theirs > ref))
      dropDoubts(out);
  }
  m_doubts.push_back(sample);
  if (m_doubts.size() < agreeingNeeded()) return;
  const auto from = m_doubts.front().at;
  const double value = median(m_doubts);
  m_recent.assign(m_doubts.begin(), m_doubts.end());
  m_doubts.clear();
  keep(from, value, out);
}

bool StreamGate::changedForGood() const {
  if (m_window.size() < agreeing) return false;
  const double far = limit(m_rules.step, m_rules.stepShare, m_kept->value);
  const auto from = m_window.end() - static_cast<std::ptrdiff_t>(agreeing);
  return std::all_of(from, m_window.end(), [&](const Sample& s) { return s.value - m_kept->value > far; }) ||
         std::all_of(from, m_window.end(), [&](const Sample& s) { return m_kept->value - s.value > far; });
}

std::vector<KeptSample> StreamGate::close() {
  std::vector<KeptSample> out;
  // Whether they were wild nobody can say any more: they stand as they are, for whoever reads on to judge.
  auto left = m_doubts.empty() ? m_window : m_doubts;
  m_doubts.clear();
  if (!left.empty() && (!m_kept || left.back().at > m_kept->at)) {
    const double value = median(left);
    keep(left.back().at, value, out);
  }
  return out;
}

} // namespace butte::devices
