#include "solve/least_norm.h"

#include "algebra/factors.h"
#include <numeric>
#include <optional>
#include <vector>

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
    std::vector<Index> all(static_cast<std::size_t>(m_a.cols()));
    std::iota(all.begin(), all.end(), Index(0));
    Place at = placeAt(solveOn(all, m_c));
    for (int i = 0; i < 40; ++i) {
      if (at.residual.norm() <= 1e-12 * (1e-300 + m_c.norm())) return at.x;
      const VectorXd direction = solveOn(at.inside, at.residual);
      const double slope = at.residual.dot(direction);
      double step = 1;
      Place next = placeAt(at.lambda + direction);
      while (step > 1e-4 && next.dual < at.dual + 1e-4 * step * slope) {
        step *= 0.5;
        next = placeAt(at.lambda + step * direction);
      }
      at = std::move(next);
    }
    return std::nullopt;
  }

private:
  struct Place {
    VectorXd lambda, x, residual;
    std::vector<Index> inside; ///< columns between their bounds
    double dual = 0;
  };

  Place placeAt(VectorXd lambda) const {
    Place at;
    at.x.noalias() = m_a.transpose() * lambda;
    for (Index j = 0; j < at.x.size(); ++j) {
      if (at.x[j] > m_lower[j] && at.x[j] < m_upper[j])
        at.inside.push_back(j);
      else
        at.x[j] = at.x[j] <= m_lower[j] ? m_lower[j] : m_upper[j];
    }
    at.residual = m_c;
    at.residual.noalias() -= m_a * at.x;
    at.dual = 0.5 * at.x.squaredNorm() + lambda.dot(at.residual);
    at.lambda = std::move(lambda);
    return at;
  }

  /// (A A' over these columns, and a tiny diagonal) d = r: the rows may depend on each other (N and its
  /// forms), hence the diagonal.
  VectorXd solveOn(const std::vector<Index>& columns, const VectorXd& r) const {
    MatrixXd part(m_a.rows(), static_cast<Index>(columns.size()));
    for (std::size_t i = 0; i < columns.size(); ++i)
      part.col(static_cast<Index>(i)) = m_a.col(columns[i]);
    MatrixXd gram(m_a.rows(), m_a.rows());
    gram.noalias() = part * part.transpose();
    gram.diagonal().array() += 1e-13 * (1e-300 + gram.diagonal().maxCoeff());
    return solveSymmetric(gram, r);
  }

  const MatrixXd& m_a;
  const VectorXd& m_c;
  const VectorXd& m_lower;
  const VectorXd& m_upper;
};

/// The rows of A and the equalities, each scaled to length 1: what must stay as it is at x.
LinearLimits holdingAll(const MatrixXd& a, const LinearLimits& limits, const VectorXd& x) {
  LinearLimits held = limits;
  const Index kept = limits.equality.rows();
  held.equality.resize(kept + a.rows(), x.size());
  held.equality << limits.equality, a;
  for (Index i = 0; i < held.equality.rows(); ++i)
    held.equality.row(i) /= std::max(held.equality.row(i).norm(), 1e-300);
  held.equalityRhs = held.equality * x;
  return held;
}

} // namespace

VectorXd leastNormAmongEqual(const MatrixXd& a, const LinearLimits& limits, const VectorXd& x) {
  const LinearLimits held = holdingAll(a, limits, x);
  if (held.inequality.rows() == 0 && held.equality.rows() > 0) {
    // Any point of the dual's form clamp(A' lambda) that keeps A x is the one sought: no active set needed.
    if (auto found = DualSearch(held.equality, held.equalityRhs, limits.lower, limits.upper).run())
      return *found;
  }
  return leastNormWithin(held, x);
}

} // namespace butte::core
