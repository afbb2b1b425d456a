#include "model/tank_model.h"

#include "tank/crop_uptake.h"
#include "tank/tank_meters.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace butte::sim {

namespace {

constexpr double secondsPerDay = 86400;

/// A feed as leafy crops have it (common practice), brought to pH 5.8.
core::FeedContent leafyFeed() {
  using core::Nutrient;
  constexpr std::pair<Nutrient, double> content[] = {
      {Nutrient::NNitrate, 150}, {Nutrient::NAmmonium, 8}, {Nutrient::P, 40},  {Nutrient::K, 210},
      {Nutrient::Ca, 150},       {Nutrient::Mg, 40},       {Nutrient::S, 80},  {Nutrient::Fe, 2},
      {Nutrient::Mn, 0.5},       {Nutrient::Zn, 0.2},      {Nutrient::B, 0.3}, {Nutrient::Cu, 0.05},
      {Nutrient::Mo, 0.05},      {Nutrient::Na, 12},       {Nutrient::Cl, 20}};
  constexpr double wantedPh = 5.8;
  core::FeedContent out;
  for (const auto& [nutrient, mgPerL] : content)
    out.milligramsPerLitre.add(nutrient, mgPerL);
  if (const auto alkalinity = core::alkalinityAtPh(out, wantedPh, {})) out.alkalinityMeqPerL = *alkalinity;
  return out;
}

} // namespace

TankModel::TankModel(TankKind kind, std::uint64_t seed)
    : m_kind(std::move(kind)), m_random(seed), m_feed(leafyFeed()) {
  m_content.pour(m_feed, m_kind.full);
  if (const auto* known = core::uptakeOf(m_kind.crop)) m_uptake = known->uptake();
}

double TankModel::celsius() const {
  constexpr double mean = 20.5, swing = 1.5, warmestHour = 16.0 / 24;
  return mean + swing * std::cos(2 * std::numbers::pi * (m_days - warmestHour));
}

void TankModel::advance(double seconds) {
  // Light from six to eighteen: nothing is drunk at night but a tenth.
  constexpr double mostAtOnce = 600, night = 0.1, stretch = std::numbers::pi * (1 - night);
  while (seconds > 0) {
    const double part = std::min(seconds, mostAtOnce);
    const double sun = std::max(0.0, std::sin(2 * std::numbers::pi * (m_days - 0.25)));
    core::ReservoirFlow flow;
    flow.transpirationLPerDay = m_kind.drunkLPerDay * (night + stretch * sun);
    flow.uptake = m_uptake;
    m_content = core::passed(m_content, flow, part / secondsPerDay).content;
    m_days += part / secondsPerDay;
    seconds -= part;
    if (m_kind.refills && m_content.volume <= m_kind.low) {
      m_content.pour(m_feed, m_kind.full - m_content.volume);
      ++m_refills;
    }
  }
}

TankFigures TankModel::truth() const {
  TankFigures out;
  out.litres = m_content.volume.litres();
  out.celsius = celsius();
  core::ReservoirAir air;
  air.temperature = core::Temperature::fromCelsius(out.celsius);
  const auto content = m_content.perLitre();
  if (!content) return out;
  if (const auto reads = core::readingsOf(*content, air)) {
    out.msPerCm = reads->at25.milliSiemensPerCm();
    out.ph = reads->ph;
  }
  return out;
}

TankFigures TankModel::read() {
  std::normal_distribution<> flicker(0, 1);
  std::uniform_real_distribution<> chance(0, 1);
  auto out = truth();
  constexpr double ecFlicker = 0.004, phFlicker = 0.01, levelFlicker = 0.002, warmthFlicker = 0.05;
  out.msPerCm *= 1 + m_kind.penEcSharePerDay * m_days + ecFlicker * flicker(m_random);
  out.ph += m_kind.penPhPerDay * m_days + phFlicker * flicker(m_random);
  out.litres += levelFlicker * m_kind.full.litres() * flicker(m_random);
  out.celsius += warmthFlicker * flicker(m_random);
  if (m_kind.levelSticksAfterDays && m_days >= *m_kind.levelSticksAfterDays) {
    if (m_stuckLitres == 0) m_stuckLitres = out.litres;
    out.litres = m_stuckLitres;
  }
  // A pen in the air, a broken glass, a sensor that does not answer, a float that leaps.
  if (chance(m_random) < m_kind.wildShare) {
    const double which = chance(m_random) * 4;
    constexpr double brokenGlass = 14, noSensor = -127;
    if (which < 1)
      out.msPerCm = 0;
    else if (which < 2)
      out.ph = brokenGlass;
    else if (which < 3)
      out.celsius = noSensor;
    else
      out.litres *= 2;
  }
  return out;
}

} // namespace butte::sim
