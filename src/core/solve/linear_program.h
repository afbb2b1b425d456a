#pragma once
#include "solve/constrained_least_squares.h"

#include <Eigen/Dense>
#include <optional>

namespace butte::core {

/// Minimises cost . x within the limits; nothing when they can't be met. The simplex answer is confirmed in
/// exact arithmetic (GLPK), so an edge counts as inside. Among equally cheap answers any may come back: make
/// it unique with leastNormAmongEqual().
std::optional<Eigen::VectorXd> linearProgram(const Eigen::VectorXd& cost, const LinearLimits& limits);

} // namespace butte::core
