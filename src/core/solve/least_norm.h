#pragma once
#include "solve/constrained_least_squares.h"

namespace butte::core {

/// Among the points with the same A x as `x`, within the limits, the one with the least sum of squares: it
/// makes "same input, same recipe" true where more salts than elements leave the best fit open.
///
/// A Newton search on the dual finds the bounds that hold (it converges in a few small steps); the active set
/// then confirms them and gives the last digits. Where the search does not settle, the active set starts from
/// `x`.
Eigen::VectorXd leastNormAmongEqual(const Eigen::MatrixXd& a, const LinearLimits& limits,
                                    const Eigen::VectorXd& x);

} // namespace butte::core
