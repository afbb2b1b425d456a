#pragma once
#include "solve/linear_model.h"

namespace butte::core {

/// Minimises |A x - b| within the limits; among equal fits the one with the least sum of squares. Nothing
/// when the limits can't be met.
std::optional<Eigen::VectorXd> fitWithin(const Eigen::MatrixXd& a, const Eigen::VectorXd& b,
                                         const LinearLimits& limits);

/// Whether x keeps the inequalities, to rounding.
bool withinInequalities(const LinearLimits& limits, const Eigen::VectorXd& x);

} // namespace butte::core
