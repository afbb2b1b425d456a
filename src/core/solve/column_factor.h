#pragma once
#include <Eigen/Core>

#include <vector>

namespace butte::core {

/// The Cholesky factor of C' C for columns C of a matrix, each scaled to length 1, that come and go one at a
/// time: what stands in front of the first change stays.
class ColumnFactor {
public:
  /// Keeps a reference to the matrix.
  explicit ColumnFactor(const Eigen::MatrixXd& a);

  /// 1 / length of each column, 0 for an empty one.
  const Eigen::VectorXd& scale() const { return m_scale; }
  /// Factors these columns; false where one depends on those before it.
  bool take(const std::vector<Eigen::Index>& columns);
  /// The z that brings C z nearest to b, in the order of the columns taken.
  Eigen::VectorXd nearest(const Eigen::VectorXd& b) const;

private:
  bool append(Eigen::Index column);
  double* row(std::size_t i) { return m_rows.data() + i * m_stride; }
  const double* row(std::size_t i) const { return m_rows.data() + i * m_stride; }

  const Eigen::MatrixXd& m_a;
  Eigen::VectorXd m_scale;
  std::vector<Eigen::Index> m_taken;
  std::size_t m_stride;
  std::vector<double> m_rows; ///< the factor, its diagonal inverted
};

} // namespace butte::core
