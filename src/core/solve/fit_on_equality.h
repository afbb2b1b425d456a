#pragma once
#include "solve/constrained_least_squares.h"

namespace butte::core {

/// Minimises |A x - b| within the bounds and on the one equality of the limits; their inequalities are not
/// looked at. Nothing when no point within the bounds keeps the equality.
///
/// One variable is put in from the equality, the rest is a fit within bounds. Where that variable leaves its
/// own bounds, a best fit lies on the bound that it crosses (the fit is convex): it stays there, and another
/// variable takes its place.
std::optional<Eigen::VectorXd> fitOnEquality(const Eigen::MatrixXd& a, const Eigen::VectorXd& b,
                                             const LinearLimits& limits);

} // namespace butte::core
