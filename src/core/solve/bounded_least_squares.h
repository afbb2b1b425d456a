#pragma once
#include <Eigen/Dense>

namespace butte::core {

/// Minimises |A x - b| within lower <= x <= upper (upper may be infinite, lower may not).
///
/// Active set after Lawson & Hanson, "Solving Least Squares Problems" (1974), and Stark & Parker (1995) for
/// the upper bounds: Cholesky on the free columns while searching, orthogonal factors for the last step. The
/// free columns stay linearly independent, so the answer is a vertex of the set of equally good fits.
/// Deterministic: ties go to the lower index.
Eigen::VectorXd boundedLeastSquares(const Eigen::MatrixXd& a, const Eigen::VectorXd& b,
                                    const Eigen::VectorXd& lower, const Eigen::VectorXd& upper);

} // namespace butte::core
