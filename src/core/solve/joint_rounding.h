#pragma once
#include "solve/solve.h"

#include <vector>

namespace butte::core {

/// Weights in whole steps (of the scale, or of bags) chosen together.
struct RoundedWeights {
  std::vector<Mass> grams;
  double misfit = 0;   ///< sum of weighted squares of what the rows and ratios are moved by, as rounded here
  double oneByOne = 0; ///< the same with every weight rounded by itself
  bool proven = true;  ///< false: the search was cut short
};

/// Chooses for each product a whole number of its step so that the target's rows and ratios stay as near as
/// they can to where the computed weights put them: rounding one up lets another go down. A step of 0 leaves
/// a weight as it is, and so does a held product. Depth-first search of the integer lattice (Schnorr &
/// Euchner 1994), from rounding one by one; ends after a fixed number of nodes.
RoundedWeights roundTogether(const SolveRequest& request, const std::vector<Mass>& grams,
                             const std::vector<Mass>& steps);

} // namespace butte::core
