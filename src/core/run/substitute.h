#pragma once
#include "chem/nutrient.h"
#include "run/run_state.h"

#include <utility>
#include <vector>

namespace butte::core {

/// The plan in effect: for each substitution that stands, its step asks only for what came of it by then, and
/// what came in its place is a step right after it (or more of one that is there).
RunPlan withSubstitutes(const RunPlan& plan, const std::vector<RunEvent>& events);

/// Something of the shelf in the place of what a step still lacks.
struct SubstituteOffer {
  struct Part {
    std::size_t product = 0;
    Mass mass; ///< of the run as it is scaled now
  };
  std::vector<Part> parts; ///< one or two
  /// The elements of the feed that would then be off by 1 % or more against the plan, the farthest first.
  std::vector<std::pair<Nutrient, double>> shiftsPercent;
};

/// The best that the shelf can do for a step that can't be filled, the nearest to the plan first; three at
/// most. Each brings the feed nearer to its plan by a fifth or more of what is missing, and nothing falls out
/// of the vessel by it. Distances are taken per element against its planned figure, sodium and chloride for a
/// tenth.
std::vector<SubstituteOffer> substitutesFor(const RunPlan& plan, const RunState& state, std::size_t vessel,
                                            std::size_t step);

} // namespace butte::core
