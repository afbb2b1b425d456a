#pragma once
#include "solve/glpk_problem.h"

#include <Eigen/Core>
#include <optional>

namespace butte::core {

/// How sure a "no" must be: exact arithmetic, or the simplex in doubles (where a near answer will do).
enum class Refusal { Exact, Quick };

/// Minimises cost . x within the limits; nothing when they can't be met. Where doubles leave a doubt, exact
/// arithmetic decides (GLPK), so an edge counts as inside. Among equally cheap answers any may come back:
/// make it unique with leastNormAmongEqual().
std::optional<Eigen::VectorXd> linearProgram(const Eigen::VectorXd& cost, const LinearLimits& limits,
                                             Refusal refusal = Refusal::Exact);

/// The same on a problem made of these limits, from where it stands: a second cost, or a limit moved, takes a
/// few steps.
std::optional<Eigen::VectorXd> linearProgramFrom(GlpkProblem& problem, const Eigen::VectorXd& cost,
                                                 const LinearLimits& limits,
                                                 Refusal refusal = Refusal::Exact);

} // namespace butte::core
