#pragma once
#include "solve/constrained_least_squares.h"
#include "solve/solve.h"

namespace butte::core {

/// The formula problem in equations, with x in g/L of each product.
///
/// Row i: base_i + sum_j a_ij x_j = result_i in mg/L, where base is the water's share.
struct LinearModel {
  Eigen::MatrixXd perGram;   ///< rows x products: mg/L per g/L
  Eigen::VectorXd base;      ///< mg/L from the water
  Eigen::VectorXd fitWeight; ///< sqrt(weight) / divisor of each row
  Eigen::VectorXd wanted;    ///< mg/L
  LinearLimits limits;       ///< bounds, caps, and the alkalinity row when acid is dosed
  std::vector<std::pair<SolveWarning, std::string>> warnings;

  /// The scaled fit: minimise |A x - b|.
  Eigen::MatrixXd scaledMatrix() const { return fitWeight.asDiagonal() * perGram; }
  Eigen::VectorXd scaledRhs() const { return fitWeight.cwiseProduct(wanted - base); }
};

LinearModel buildModel(const SolveRequest& request);

/// The limits with every row's band added as two inequalities.
LinearLimits withBands(const LinearModel& model, const std::vector<TargetRow>& rows);

} // namespace butte::core
