#pragma once
#include "run/run_event.h"

#include <optional>
#include <vector>

namespace butte::app {

class BenchEdits;

/// What is told when something went otherwise than was told: strikes of what did not happen, and what did.
class BenchMends {
public:
  explicit BenchMends(const BenchEdits& run) : m_run(run) {}

  /// What lies in the cup to be tipped, or was tipped last.
  struct Tipped {
    std::size_t product = 0, vessel = 0;
    std::optional<std::size_t> event; ///< nothing: it is about to be
  };
  std::optional<Tipped> movable() const;
  bool canMove() const;
  std::vector<core::RunDeed> moved(std::size_t vessel) const;

  /// The product that was weighed last.
  std::optional<std::size_t> swappable() const;
  bool canSwap() const { return swappable().has_value(); }
  std::vector<core::RunDeed> swapped(std::size_t product) const;

  /// The vessel in hand holds so much. Beyond its mark all of the run is made larger, so that it stays in
  /// proportion, or that vessel is left the weaker.
  bool isBeyondMark(core::Volume volume) const;
  std::vector<core::RunDeed> poured(core::Volume volume) const;
  std::vector<core::RunDeed> allLarger(core::Volume volume) const;
  std::vector<core::RunDeed> leftWeaker(core::Volume volume) const;

private:
  template <class Deed> std::optional<std::size_t> lastOf() const;
  std::vector<core::RunDeed> strikesFrom(std::size_t event, std::size_t product) const;

  const BenchEdits& m_run;
};

} // namespace butte::app
