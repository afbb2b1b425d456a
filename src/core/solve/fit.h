#pragma once
#include "solve/linear_model.h"

namespace butte::core {

/// Minimises |A x - b| within the limits; among equal fits the one with the least sum of squares. Nothing
/// when the limits can't be met.
std::optional<Eigen::VectorXd> fitWithin(const Eigen::MatrixXd& a, const Eigen::VectorXd& b,
                                         const LinearLimits& limits);

/// Its two steps: one of the equally good fits, and from any of them the one with the least sum of squares.
std::optional<Eigen::VectorXd> anyBestFit(const Eigen::MatrixXd& a, const Eigen::VectorXd& b,
                                          const LinearLimits& limits);
Eigen::VectorXd madeUnique(const Eigen::MatrixXd& a, const Eigen::VectorXd& b, const LinearLimits& limits,
                           Eigen::VectorXd x);

/// Whether x keeps the inequalities, to rounding.
bool withinInequalities(const LinearLimits& limits, const Eigen::VectorXd& x);

} // namespace butte::core
