#pragma once
#include "solve/column_factor.h"

#include <Eigen/Core>

namespace butte::core {

/// Minimises |A x - b| within lower <= x <= upper (upper may be infinite, lower may not).
///
/// Active set after Lawson & Hanson, "Solving Least Squares Problems" (1974), and Stark & Parker (1995) for
/// the upper bounds: Cholesky on the free columns while searching, orthogonal factors for the last step. The
/// free columns stay linearly independent, so the answer is a vertex of the set of equally good fits.
/// Deterministic: ties go to the lower index.
Eigen::VectorXd boundedLeastSquares(const Eigen::MatrixXd& a, const Eigen::VectorXd& b,
                                    const Eigen::VectorXd& lower, const Eigen::VectorXd& upper);

/// The same fit asked again and again within other bounds: what depends on A and b alone is worked out once.
/// Keeps references to both.
class BoundedFit {
public:
  BoundedFit(const Eigen::MatrixXd& a, const Eigen::VectorXd& b);

  Eigen::VectorXd within(const Eigen::VectorXd& lower, const Eigen::VectorXd& upper) const;
  /// Begins at a guess, with the columns free that stand between their bounds there: a few steps where the
  /// guess is the answer within bounds that differ little. Without the last orthogonal step.
  Eigen::VectorXd near(const Eigen::VectorXd& guess, const Eigen::VectorXd& lower,
                       const Eigen::VectorXd& upper) const;
  double residualSquared(const Eigen::VectorXd& x) const;

private:
  class Search;
  const Eigen::MatrixXd& m_a;
  const Eigen::VectorXd& m_b;
  ColumnFactor m_factor; ///< nothing taken: a search begins with a copy
};

} // namespace butte::core
