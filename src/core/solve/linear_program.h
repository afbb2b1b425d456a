#pragma once
#include "solve/constrained_least_squares.h"

#include <Eigen/Dense>
#include <optional>

namespace butte::core {

/// How sure a "no" must be: exact arithmetic, or the simplex in doubles (where a near answer will do).
enum class Refusal { Exact, Quick };

/// Minimises cost . x within the limits; nothing when they can't be met. Where doubles leave a doubt, exact
/// arithmetic decides (GLPK), so an edge counts as inside. Among equally cheap answers any may come back:
/// make it unique with leastNormAmongEqual().
std::optional<Eigen::VectorXd> linearProgram(const Eigen::VectorXd& cost, const LinearLimits& limits,
                                             Refusal refusal = Refusal::Exact);

/// Gives back what the solver library keeps for the calling thread. For the end of a thread's work; no search
/// may be alive on it.
void releaseSolverMemory();

} // namespace butte::core
