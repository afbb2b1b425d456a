#pragma once
#include "run/run_state.h"

#include <functional>
#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// One bag's fill.
struct BagFill {
  std::size_t vessel = 0; ///< the bag, an index into the plan
  Mass mass;
  bool isOutside = false; ///< of its tolerance
};

/// Bags of one product that should all weigh the same, as far as they are filled.
struct FillStatistics {
  std::size_t product = 0;
  Mass wanted, tolerance;
  std::size_t bags = 0;       ///< planned
  std::vector<BagFill> fills; ///< in the order of the plan
  Mass mean;
  std::optional<Mass> deviation; ///< standard deviation of a fill (n - 1); nothing below two of them
  Mass least, most;
  std::size_t outside = 0;
  /// All of them lie to one side by more than chance: a tare that is off, or a scale. (The mean is farther
  /// from what is wanted than twice its standard error, and than a quarter of the tolerance; from five on.)
  bool isShifted = false;
};

/// Of each kind of bag of a run, in the order of the plan: those of the same product and weight.
std::vector<FillStatistics> bagFills(const RunPlan& plan, const RunState& state);

/// `count` bags of each product that `vessels` take, product by product, each bag for the same feed; named
/// by `nameOf(vessel, product, bag)`.
RunPlan
bagPlan(const RunPlan& vessels, std::size_t count,
        const std::function<std::string(std::size_t vessel, std::size_t product, std::size_t bag)>& nameOf);

} // namespace butte::core
