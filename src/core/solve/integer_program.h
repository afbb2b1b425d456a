#pragma once
#include "solve/constrained_least_squares.h"

#include <optional>
#include <vector>

namespace butte::core {

struct IntegerPoint {
  Eigen::VectorXd x;
  bool proven = true; ///< false when the search was cut short: the best one found so far
};

/// Minimises cost . x within the limits, the named columns being 0 or 1, others whole numbers (GLPK's branch
/// and cut). The search ends after `mostNodes`, never by the clock, so that the same input gives the same
/// answer.
std::optional<IntegerPoint> integerProgram(const Eigen::VectorXd& cost, const LinearLimits& limits,
                                           const std::vector<Eigen::Index>& zeroOrOne,
                                           const std::vector<Eigen::Index>& whole = {},
                                           int mostNodes = 20000);

} // namespace butte::core
