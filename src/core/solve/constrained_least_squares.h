#pragma once
#include <Eigen/Core>
#include <optional>

namespace butte::core {

/// Linear limits on x: bounds, equalities E x = e, inequalities G x <= h.
struct LinearLimits {
  Eigen::VectorXd lower, upper; ///< upper may be infinite
  Eigen::MatrixXd equality;
  Eigen::VectorXd equalityRhs;
  Eigen::MatrixXd inequality;
  Eigen::VectorXd inequalityRhs;

  static LinearLimits boundsOnly(Eigen::VectorXd lower, Eigen::VectorXd upper);
  void addInequality(const Eigen::RowVectorXd& row, double rhs);
  void addEquality(const Eigen::RowVectorXd& row, double rhs);
};

/// A point within all limits (to 1e-9 of each row's size), or nothing when there is none.
std::optional<Eigen::VectorXd> feasiblePoint(const LinearLimits& limits);

/// Minimises |A x - b| within the limits, from a point within them. Primal active set with a null-space step
/// (Nocedal & Wright, "Numerical Optimization", 2nd ed., ch. 16); A may be rank-deficient.
Eigen::VectorXd constrainedLeastSquares(const Eigen::MatrixXd& a, const Eigen::VectorXd& b,
                                        const LinearLimits& limits, const Eigen::VectorXd& start);

/// The point within the limits with the least sum of squares, from a point within them.
Eigen::VectorXd leastNormWithin(const LinearLimits& limits, const Eigen::VectorXd& start);

} // namespace butte::core
