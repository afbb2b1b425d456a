#include "pen/pen_watch.h"

#include <algorithm>

namespace butte::devices {

namespace {
constexpr std::size_t mostReadings = 1000;
constexpr double stillShare = 0.01, stillMilliSiemens = 0.02, stillPh = 0.05;
} // namespace

void PenWatch::take(const PenReading& reading, std::int64_t at) {
  if (reading.isEmpty()) return;
  m_read.push_back({at, reading});
  while (m_read.size() > mostReadings || (m_read.size() > 1 && m_read[1].at <= at - stillMilliseconds))
    m_read.pop_front();
}

bool PenWatch::isStill() const {
  if (m_read.back().at - m_read.front().at < stillMilliseconds) return false;
  double leastEc = 1e300, mostEc = -1e300, leastPh = 1e300, mostPh = -1e300;
  for (const auto& [at, reading] : m_read) {
    if (reading.stable && !*reading.stable) return false;
    if (reading.conductivity) {
      leastEc = std::min(leastEc, reading.conductivity->milliSiemensPerCm());
      mostEc = std::max(mostEc, reading.conductivity->milliSiemensPerCm());
    }
    if (reading.ph) {
      leastPh = std::min(leastPh, *reading.ph);
      mostPh = std::max(mostPh, *reading.ph);
    }
  }
  const bool ecStill =
      mostEc < leastEc || mostEc - leastEc <= std::max(stillMilliSiemens, stillShare * mostEc);
  const bool phStill = mostPh < leastPh || mostPh - leastPh <= stillPh;
  return ecStill && phStill;
}

PenNow PenWatch::now(std::int64_t at) const {
  PenNow out;
  if (m_read.empty() || at - m_read.back().at > silentAfterMilliseconds) return out;
  out.heard = true;
  for (const auto& [when, reading] : m_read) { // a pen may send EC and pH in turn
    if (reading.conductivity) out.conductivity = reading.conductivity;
    if (reading.ph) out.ph = reading.ph;
    if (reading.temperature) out.temperature = reading.temperature;
  }
  out.still = isStill();
  return out;
}

} // namespace butte::devices
