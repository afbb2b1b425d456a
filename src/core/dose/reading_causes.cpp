#include "dose/reading_causes.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace butte::core {
namespace {

constexpr double meterPercent = 5;
constexpr double temperaturePercentPerKelvin = 2;     // usual compensation of pens (common practice)
constexpr double coldestWater = 4, warmestWater = 40; // degC of a feed that somebody measures
constexpr double farFetched = 4;
constexpr double rareMixUp =
    1; // a shut side or a wrong scale happens less often than a few per cent of volume
constexpr std::array<double, 6> scaleFactors{500.0 / 700, 500.0 / 640, 640.0 / 700,
                                             700.0 / 500, 640.0 / 500, 700.0 / 640};

class Causes {
public:
  explicit Causes(const ReadingGap& gap)
      : m_gap(gap), m_expected(gap.expected.milliSiemensPerCm()), m_read(gap.read.milliSiemensPerCm()),
        m_water(gap.water.milliSiemensPerCm()) {}

  std::vector<PossibleCause> all() {
    if (std::abs(m_read - m_expected) <= m_expected * meterPercent / 100)
      return {{ReadingCause::WithinMeter, meterPercent, 0, 0}};
    addMixUps();
    addSizes();
    std::stable_sort(m_out.begin(), m_out.end(),
                     [](const auto& a, const auto& b) { return a.unlikeliness < b.unlikeliness; });
    if (m_out.empty()) return {};
    dropFarFetched();
    return std::move(m_out);
  }

private:
  /// What would have to be several times its usual size, where something else explains it better.
  void dropFarFetched() {
    const double most = std::max(farFetched, 2 * m_out.front().unlikeliness);
    std::erase_if(m_out, [&](const PossibleCause& c) { return c.unlikeliness > most; });
  }

  void add(ReadingCause cause, double value, double unlikeliness, std::size_t tank = 0) {
    m_out.push_back({cause, value, tank, unlikeliness});
  }

  /// How far the reading is from what a mix-up would show, in meter errors.
  double distance(double wouldRead) const {
    return rareMixUp + std::abs(m_read - wouldRead) / (m_expected * meterPercent / 100);
  }

  void addMixUps() {
    for (const double factor : scaleFactors) {
      if (distance(m_expected * factor) < 1 + rareMixUp)
        add(ReadingCause::MeterScale, factor, distance(m_expected * factor));
    }
    for (std::size_t t = 0; t < m_gap.withTankShut.size(); ++t) {
      const double shut = m_gap.withTankShut[t].milliSiemensPerCm();
      if (distance(shut) < 2 + rareMixUp) add(ReadingCause::OneSideShut, shut, distance(shut), t);
    }
  }

  void addSizes() {
    const double rise = m_expected - m_water, found = m_read - m_water;
    if (rise > 0 && found > 0) {
      const double strength = found / rise;
      if (m_gap.volume)
        add(ReadingCause::WrongVolume, m_gap.volume->litres() / strength, std::abs(1 / strength - 1) / 0.1);
      if (strength < 1) add(ReadingCause::Undissolved, 100 * (1 - strength), (1 - strength) / 0.1 * 1.1);
      add(ReadingCause::StockOff, strength, std::abs(strength - 1) / 0.08);
    }
    const double water = m_read - (m_expected - m_water);
    if (water >= 0) add(ReadingCause::OtherWater, water, std::abs(water - m_water) / 0.1);
    const double kelvin = (m_read / m_expected - 1) * 100 / temperaturePercentPerKelvin;
    if (kelvin > coldestWater - 25 && kelvin < warmestWater - 25)
      add(ReadingCause::Temperature, kelvin, std::abs(kelvin) / 4);
  }

  const ReadingGap& m_gap;
  double m_expected, m_read, m_water;
  std::vector<PossibleCause> m_out;
};

} // namespace

std::vector<PossibleCause> causesOf(const ReadingGap& gap) {
  return Causes(gap).all();
}

} // namespace butte::core
