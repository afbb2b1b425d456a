#pragma once
#include "solve/constrained_least_squares.h"

namespace butte::core {

/// Among the points with the same A x as `x`, within the limits, the one with the least sum of squares: it
/// makes "same input, same recipe" true where more salts than elements leave the best fit open.
///
/// A Newton search on the dual settles it in a few small steps where bounds are the only inequalities;
/// otherwise, or where that search does not settle, an active set starts from `x`.
Eigen::VectorXd leastNormAmongEqual(const Eigen::MatrixXd& a, const LinearLimits& limits,
                                    const Eigen::VectorXd& x);

} // namespace butte::core
