#pragma once
#include <Eigen/Core>

#include <memory>

/// The library's decompositions, made in one place: each of them costs a compiler seconds wherever its header
/// is read, and this program needs them for one kind of matrix only.
namespace butte::core {

/// The x that brings A x nearest to b, for independent columns (QR with column pivoting).
Eigen::VectorXd leastSquares(const Eigen::MatrixXd& a, const Eigen::VectorXd& b);

/// Among the x that bring A x nearest to b, the one with the least sum of squares; A may be rank-deficient
/// (complete orthogonal decomposition).
Eigen::VectorXd leastNormLeastSquares(const Eigen::MatrixXd& a, const Eigen::VectorXd& b);

/// What some rows say of the vectors they are multiplied with (QR with column pivoting of their transpose).
class RowSpace {
public:
  /// A pivot below `threshold` times the largest counts as zero.
  RowSpace(const Eigen::MatrixXd& rows, double threshold);
  ~RowSpace();

  Eigen::Index rank() const;
  /// An orthonormal basis of the vectors that the rows turn to zero, one a column.
  Eigen::MatrixXd nullSpace() const;
  /// The part of a vector that the rows see.
  Eigen::VectorXd projected(const Eigen::VectorXd& v) const;

private:
  struct Factors;
  std::unique_ptr<Factors> m_factors;
};

/// Number of independent columns; a pivot below `threshold` times the largest counts as zero.
Eigen::Index rankOf(const Eigen::MatrixXd& columns, double threshold);

/// A x = b for a symmetric positive semidefinite A, with one step of refinement (LDL').
Eigen::VectorXd solveSymmetric(const Eigen::MatrixXd& a, const Eigen::VectorXd& b);

/// A square system solved and inverted (LU with full pivoting).
struct SquareSolution {
  double reciprocalCondition =
      0; ///< an estimate; the rest is left empty where it is below the limit asked for
  Eigen::VectorXd x;
  Eigen::MatrixXd inverse;
};
SquareSolution solveSquare(const Eigen::MatrixXd& a, const Eigen::VectorXd& b,
                           double leastReciprocalCondition);

/// |A x - b|^2 = |R x - c|^2 + what no x changes, with R upper triangular (QR).
struct TriangularForm {
  Eigen::MatrixXd r;
  Eigen::VectorXd c;
};
TriangularForm triangularForm(const Eigen::MatrixXd& a, const Eigen::VectorXd& b);

} // namespace butte::core
