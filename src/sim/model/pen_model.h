#pragma once
#include "units/quantity.h"

#include <cstdint>
#include <random>
#include <string>

namespace butte::sim {

/// An EC and pH pen that is none: it comes slowly to what it hangs in, drifts, and may be badly calibrated.
/// Compensates for temperature by 2 % a degree, as pens do (common practice); pH of its glass settles last.
class PenModel {
public:
  explicit PenModel(std::uint64_t seed = 1) : m_random(seed) {}

  void dip(core::Conductivity at25, double ph, core::Temperature temperature);
  void takeOut(); ///< in air: no conductivity, pH wanders
  /// What it shows of a conductivity of 1, and of a pH: an old standard, a dried glass.
  void setCalibration(double slope, double phOffset) { m_slope = slope, m_phOffset = phOffset; }
  void setDrift(double phPerMinute) { m_phPerSecond = phPerMinute / 60; }

  void advance(double seconds);
  /// "ST,EC,1.45,mS/cm,pH,5.82,21.3,C"
  std::string line() const;

private:
  std::mt19937_64 m_random;
  double m_trueEc = 0, m_truePh = 7, m_trueCelsius = 20;
  double m_ec = 0, m_ph = 7, m_celsius = 20, m_phDrift = 0, m_phPerSecond = 0, m_slope = 1, m_phOffset = 0;
  double m_ecFlicker = 0, m_phFlicker = 0;
};

} // namespace butte::sim
