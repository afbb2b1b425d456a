#include "solve/least_norm.h"

#include <optional>

namespace butte::core {
namespace {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

/// Minimises |x|^2 / 2 subject to A x = c and bounds, by x = clamp(A' lambda): lambda solves A x(lambda) = c.
class DualSearch {
public:
  DualSearch(const MatrixXd& a, const VectorXd& c, const VectorXd& lower, const VectorXd& upper)
      : m_a(a), m_c(c), m_lower(lower), m_upper(upper) {}

  std::optional<VectorXd> run() {
    VectorXd lambda = solveOn(VectorXd::Ones(m_a.cols()), m_c);
    for (int i = 0; i < 40; ++i) {
      const VectorXd x = primal(lambda);
      const VectorXd residual = m_c - m_a * x;
      if (residual.norm() <= 1e-12 * (1e-300 + m_c.norm())) return x;
      const VectorXd direction = solveOn(inside(lambda), residual);
      double step = 1;
      const double now = dual(lambda), slope = residual.dot(direction);
      while (step > 1e-4 && dual(lambda + step * direction) < now + 1e-4 * step * slope)
        step *= 0.5;
      lambda += step * direction;
    }
    return std::nullopt;
  }

private:
  VectorXd primal(const VectorXd& lambda) const {
    return (m_a.transpose() * lambda).cwiseMax(m_lower).cwiseMin(m_upper);
  }
  VectorXd inside(const VectorXd& lambda) const {
    const VectorXd free = m_a.transpose() * lambda;
    return ((free.array() > m_lower.array()) && (free.array() < m_upper.array())).cast<double>();
  }
  double dual(const VectorXd& lambda) const {
    const VectorXd x = primal(lambda);
    return 0.5 * x.squaredNorm() - lambda.dot(m_a * x - m_c);
  }
  /// (A D A' + tiny) d = r: the rows may depend on each other (N and its forms), hence the tiny diagonal.
  VectorXd solveOn(const VectorXd& mask, const VectorXd& r) const {
    MatrixXd gram = m_a * mask.asDiagonal() * m_a.transpose();
    gram.diagonal().array() += 1e-13 * (1e-300 + gram.diagonal().maxCoeff());
    const Eigen::LDLT<MatrixXd> factors(gram);
    VectorXd d = factors.solve(r);
    d += factors.solve(r - gram * d);
    return d;
  }

  const MatrixXd& m_a;
  const VectorXd& m_c;
  const VectorXd& m_lower;
  const VectorXd& m_upper;
};

} // namespace

VectorXd leastNormAmongEqual(const MatrixXd& a, const LinearLimits& limits, const VectorXd& x) {
  LinearLimits held = limits;
  const VectorXd kept = a * x;
  for (Index i = 0; i < a.rows(); ++i) {
    if (const double norm = a.row(i).norm(); norm > 0) held.addEquality(a.row(i) / norm, kept[i] / norm);
  }
  if (held.inequality.rows() == 0 && held.equality.rows() > 0) {
    // The kept equality of the dosed acid is scaled like the others.
    MatrixXd rows = held.equality;
    VectorXd rhs = rows * x;
    for (Index i = 0; i < rows.rows(); ++i) {
      const double norm = std::max(rows.row(i).norm(), 1e-300);
      rows.row(i) /= norm;
      rhs[i] /= norm;
    }
    if (const auto start = DualSearch(rows, rhs, limits.lower, limits.upper).run())
      return leastNormWithin(held, *start);
  }
  return leastNormWithin(held, x);
}

} // namespace butte::core
