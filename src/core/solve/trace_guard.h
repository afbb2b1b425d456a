#pragma once
#include "solve/solve.h"

#include <vector>

namespace butte::core {

/// A trace element that nobody asked for, and the salts on the shelf that would bring it.
struct TraceGuard {
  Nutrient nutrient{};
  std::vector<std::size_t> salts; ///< indices into the shelf
  /// What these may bring together: up to what is safe (target/safe_ceilings.h) beside the water's own, or
  /// what of them is held or asked for at least.
  double saltsMayBringMgPerL = 0;
};

/// A trace element's salt is no source of anything else: manganese sulfate gives no sulfur. Every element
/// without a target, cap or ratio of its own is guarded where a salt of it stands on the shelf; a cap on the
/// element lifts the guard. Blends that hold a little of it are not meant.
std::vector<TraceGuard> traceGuards(const SolveRequest& request);

} // namespace butte::core
