#pragma once
#include "solve/constrained_least_squares.h"
#include "solve/solve.h"
#include "solve/trace_guard.h"

namespace butte::core {

/// One edge of a wish's band: row . x <= most.
struct BandEdge {
  Eigen::RowVectorXd row;
  double most = 0;
  double violationPerUnit = 1; ///< weight / divisor
  std::size_t wish = 0;        ///< row of the model
  bool upper = true;
};

/// The formula problem in equations, with x in g/L of each product.
///
/// Row i: base_i + sum_j a_ij x_j = result_i in mg/L, where base is the water's share.
struct LinearModel {
  Eigen::MatrixXd perGram;   ///< rows x products: mg/L per g/L; the ratios follow the target's rows
  Eigen::VectorXd base;      ///< mg/L from the water
  Eigen::VectorXd fitWeight; ///< sqrt(weight) / divisor of each row
  Eigen::VectorXd wanted;    ///< mg/L; 0 for a ratio
  std::vector<BandEdge> bands;
  LinearLimits limits; ///< bounds, caps, and the alkalinity row when acid is dosed
  /// What the inequalities of `limits` hold, in their order: the caps that were asked for, then what trace
  /// salts may bring of an element that nobody asked for (target/safe_ceilings.h).
  std::vector<Cap> caps;
  std::size_t askedCaps = 0;
  std::vector<GuardReason> guardReasons; ///< why the caps stand that nobody asked for, in their order
  std::vector<std::pair<SolveWarning, std::string>> warnings;

  /// The scaled fit: minimise |A x - b|.
  Eigen::MatrixXd scaledMatrix() const { return fitWeight.asDiagonal() * perGram; }
  Eigen::VectorXd scaledRhs() const { return fitWeight.cwiseProduct(wanted - base); }
};

LinearModel buildModel(const SolveRequest& request);

/// The limits with every band's edges added as inequalities, in the order of `bands`.
LinearLimits withBands(const LinearModel& model);
/// The same with other ends: one for each of `bands`.
LinearLimits withBands(const LinearModel& model, const std::vector<double>& most);

/// Where a row stands at x, in mg/L.
double resultAt(const LinearModel& model, Eigen::Index row, const Eigen::VectorXd& x);
/// Distances outside the bands, weighted, summed up.
double violationAt(const LinearModel& model, const Eigen::VectorXd& x);

} // namespace butte::core
