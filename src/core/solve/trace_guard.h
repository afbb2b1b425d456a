#pragma once
#include "solve/solve.h"

#include <vector>

namespace butte::core {

enum class GuardReason {
  NobodyAsked,    ///< the element has no target: its salt is no source of anything else
  ChelateInstead, ///< iron(II) rusts out above pH 5 (common practice) and a chelate of iron stands free
};

/// A trace element, and the salts of it on the shelf that are not to bring it.
struct TraceGuard {
  GuardReason reason{};
  Nutrient nutrient{};
  std::vector<std::size_t> salts; ///< indices into the shelf
  /// What these may bring together: up to what is safe (target/safe_ceilings.h) beside the water's own, or
  /// what of them is held or asked for at least.
  double saltsMayBringMgPerL = 0;
};

/// A trace element's salt is no source of anything else: manganese sulfate gives no sulfur. Every element
/// without a target, cap or ratio of its own is guarded where a salt of it stands on the shelf; a cap on the
/// element lifts the guard. Blends that hold a little of it are not meant. Plain iron is guarded, asked for
/// or not, where a chelate of iron may take its place without limit.
std::vector<TraceGuard> traceGuards(const SolveRequest& request);

/// Iron that no chelate holds: iron(II) sulfate and its kind, known by their formula.
bool isPlainIron(const ShelfProduct& product);

} // namespace butte::core
