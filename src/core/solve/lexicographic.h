#pragma once
#include "solve/linear_model.h"

namespace butte::core {

/// The bands with a slack for every wish: the first n variables are the products, then one slack a wish.
LinearLimits loosened(const LinearModel& model);
/// Weight of each slack in the sum of violations; 0 for the products.
Eigen::VectorXd violationWeights(const LinearModel& model);

/// The least sum of weighted distances outside the bands, with the slacks that reach it; nothing when the
/// limits themselves can't be met.
struct LeastViolation {
  Eigen::VectorXd x; ///< products and slacks
  double sum = 0;
};
std::optional<LeastViolation> leastViolation(const LinearModel& model, const LinearLimits& loose);

/// Inside the bands (or else with the least violation), and there the least cost. `cost` per g/L.
std::optional<Eigen::VectorXd> cheapestWithin(const LinearModel& model, const Eigen::VectorXd& cost,
                                              Require require);

/// The closest fit among those that leave the bands the least.
std::optional<Eigen::VectorXd> bandsFirst(const LinearModel& model);

} // namespace butte::core
