#pragma once
#include "solve/linear_model.h"

namespace butte::core {

/// For each row outside its band: what keeps it there, read from the fit's own gradients and active limits.
std::vector<Reason> reasonsForMisses(const SolveRequest& request, const LinearModel& model,
                                     const Eigen::VectorXd& x);

/// Why the bands, caps and the alkalinity to be left can't all be had.
std::vector<Reason> reasonsForNoAnswer(const SolveRequest& request, const LinearModel& model);

} // namespace butte::core
