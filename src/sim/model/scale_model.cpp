#include "model/scale_model.h"

#include "scale/scale_words.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace butte::sim {

using core::Mass;

namespace {

constexpr double ouncesPerPound = 16, mostLagSteps = 3, draughtSteps = 25, slowSeconds = 0.2;

/// Decimals that show a step.
int decimalsFor(double step) {
  constexpr double nearly = 1e-6;
  return std::max(0, static_cast<int>(std::ceil(-std::log10(step) - nearly)));
}

/// A step as displays of other units have it: 1, 2 or 5 times a power of ten, no finer than the scale is.
double roundStep(double step) {
  const double power = std::pow(10.0, std::floor(std::log10(step) + 1e-9));
  for (const double one : {1.0, 2.0, 5.0, 10.0})
    if (one * power >= step * (1 - 1e-9)) return one * power;
  return 10 * power;
}

} // namespace

ScaleModel::ScaleModel(ScaleKind kind, std::uint64_t seed) : m_kind(std::move(kind)), m_random(seed) {}

void ScaleModel::layOn(Mass container) {
  m_container = container;
  m_content = m_pouring = Mass{};
  m_lifted = false;
}

void ScaleModel::pour(Mass mass, double seconds) {
  if (seconds > 0) {
    m_pouring = m_pouring + mass;
    m_pourSeconds = seconds;
  } else {
    m_content = m_content + mass;
  }
}

void ScaleModel::takeOut(Mass mass) {
  m_content = m_content - std::min(mass, m_content);
}

void ScaleModel::lift() {
  m_lifted = true;
}

void ScaleModel::putBack() {
  m_lifted = false;
}

void ScaleModel::tip(double leftShare) {
  m_content = m_content * leftShare;
  m_lifted = false;
}

Mass ScaleModel::load() const {
  const auto lies = m_lifted ? Mass{} : m_container + m_content;
  return (lies - m_pull) * m_span + m_drift;
}

void ScaleModel::tare() {
  m_tare = Mass::fromGrams(m_filtered);
}

void ScaleModel::pull(Mass upward) {
  m_pull = upward;
}

void ScaleModel::draught(double seconds) {
  m_draughtSeconds = seconds;
}

void ScaleModel::advance(double seconds) {
  if (m_pourSeconds > 0) {
    const double share = std::min(1.0, seconds / m_pourSeconds);
    m_content = m_content + m_pouring * share;
    m_pouring = m_pouring * (1 - share);
    m_pourSeconds -= seconds;
  }
  m_drift = m_drift + m_driftPerSecond * seconds;
  const double share = m_kind.lagSeconds > 0 ? 1 - std::exp(-seconds / m_kind.lagSeconds) : 1;
  m_filtered += (load().grams() - m_filtered) * share;
  m_slow += (m_filtered - m_slow) * (1 - std::exp(-seconds / slowSeconds));
  std::normal_distribution<double> normal;
  const double step = m_kind.step.grams();
  m_flicker = normal(m_random) * m_kind.noiseSteps * step;
  if (m_draughtSeconds > 0) {
    m_flicker += normal(m_random) * draughtSteps * step;
    m_draughtSeconds -= seconds;
  }
}

std::string ScaleModel::line() const {
  if (m_filtered > m_kind.capacity.grams()) return "OL";
  const bool pounds = m_kind.unit == "lb:oz";
  const double unit = devices::gramsIn(pounds ? "oz" : m_kind.unit);
  const double step = roundStep(m_kind.step.grams() / unit);
  const double shown = std::round((m_filtered + m_flicker - m_tare.grams()) / unit / step) * step + 0.0;
  const bool still =
      std::abs(m_filtered - m_slow) < mostLagSteps * m_kind.step.grams() && m_draughtSeconds <= 0;
  const auto mark = still ? "ST" : "US";
  const char sign = shown < 0 ? '-' : '+';
  const int decimals = decimalsFor(step);
  if (!pounds) return fmt::format("{},NT,{}{:9.{}f} {}", mark, sign, std::abs(shown), decimals, m_kind.unit);
  const double whole = std::floor(std::abs(shown) / ouncesPerPound);
  return fmt::format("{},NT,{}{:.0f} lb {:.{}f} oz", mark, sign, whole,
                     std::abs(shown) - whole * ouncesPerPound, decimals);
}

} // namespace butte::sim
