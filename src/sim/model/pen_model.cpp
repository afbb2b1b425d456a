#include "model/pen_model.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace butte::sim {

namespace {
constexpr double ecLagSeconds = 1.5, phLagSeconds = 4, celsiusLagSeconds = 6;
constexpr double ecFlickerShare = 0.001, phFlicker = 0.005, stillEcShare = 0.02, stillPh = 0.03;
constexpr double ecPerDegree = 0.02, referenceCelsius = 25;

double towards(double now, double then, double seconds, double lag) {
  return now + (then - now) * (1 - std::exp(-seconds / lag));
}
} // namespace

void PenModel::dip(core::Conductivity at25, double ph, core::Temperature temperature) {
  m_trueEc = at25.milliSiemensPerCm();
  m_truePh = ph;
  m_trueCelsius = temperature.celsius();
}

void PenModel::takeOut() {
  m_trueEc = 0;
}

void PenModel::advance(double seconds) {
  m_celsius = towards(m_celsius, m_trueCelsius, seconds, celsiusLagSeconds);
  // What the cell sees, made good by the temperature that the pen believes in.
  const double seen = m_trueEc * (1 + ecPerDegree * (m_trueCelsius - referenceCelsius));
  const double shown = seen / (1 + ecPerDegree * (m_celsius - referenceCelsius));
  m_ec = towards(m_ec, shown * m_slope, seconds, ecLagSeconds);
  m_ph = towards(m_ph, m_truePh + m_phOffset, seconds, phLagSeconds);
  m_phDrift += m_phPerSecond * seconds;
  std::normal_distribution<double> normal;
  m_ecFlicker = normal(m_random) * ecFlickerShare * m_ec;
  m_phFlicker = normal(m_random) * phFlicker;
}

std::string PenModel::line() const {
  const bool still = std::abs(m_ec - m_trueEc * m_slope) <= stillEcShare * std::max(0.1, m_ec) &&
                     std::abs(m_ph - m_truePh - m_phOffset) <= stillPh;
  constexpr double mostPh = 14;
  return fmt::format("{},EC,{:.2f},mS/cm,pH,{:.2f},{:.1f},C", still ? "ST" : "US",
                     std::max(0.0, m_ec + m_ecFlicker),
                     std::clamp(m_ph + m_phFlicker + m_phDrift, 0.0, mostPh), m_celsius);
}

} // namespace butte::sim
