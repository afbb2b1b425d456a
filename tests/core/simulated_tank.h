#pragma once
#include "tank/tank_estimate.h"

#include <cmath>
#include <cstdint>
#include <optional>
#include <vector>

namespace butte::core {

/// Random figures that are the same everywhere.
class Dice {
public:
  explicit Dice(std::uint64_t seed) : m_state(seed * 0x9e3779b97f4a7c15ULL + 1) {}
  double even() {
    m_state ^= m_state << 13;
    m_state ^= m_state >> 7;
    m_state ^= m_state << 17;
    return static_cast<double>(m_state >> 11) * 0x1.0p-53;
  }
  double between(double low, double high) { return low + (high - low) * even(); }
  double normal() { return std::sqrt(-2 * std::log(1 - even())) * std::cos(6.283185307179586 * even()); }

private:
  std::uint64_t m_state;
};

/// A tank whose truth is known: what its grower believes, what truly happens, and what was written down.
struct SimulatedTank {
  TankStart believed;
  FeedContent feed;
  std::vector<TankEntry> log;
  std::vector<ReservoirContent> truthOfDay;                 ///< before that day's entries, from day 0
  std::vector<std::optional<ReservoirReadings>> readsOfDay; ///< what true meters would show then
};

struct SimulatedManner {
  int days = 28;
  double readsPerDay = 0.5; ///< chance of each reading on a day
  bool forgetsRefill = false;
  int dosesUntilDay = 1000; ///< acid or base, where the pH asks for it
};

SimulatedTank simulatedTank(std::uint64_t seed, const SimulatedManner& manner = {});

} // namespace butte::core
