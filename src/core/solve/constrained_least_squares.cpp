#include "solve/constrained_least_squares.h"

#include "algebra/factors.h"
#include "solve/bounded_least_squares.h"

#include <cmath>
#include <limits>
#include <vector>

namespace butte::core {
namespace {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

constexpr double dependentBelow = 1e-11; // of the largest pivot

double rowScale(const Eigen::RowVectorXd& row, double rhs) {
  return std::max({row.cwiseAbs().maxCoeff(), std::abs(rhs), 1e-300});
}

class ActiveSet {
public:
  /// With `leastNorm`, A is the identity and b zero.
  ActiveSet(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits, VectorXd start,
            bool leastNorm = false)
      : m_a(a), m_b(b), m_limits(limits), m_leastNorm(leastNorm), m_x(std::move(start)),
        m_fixed(static_cast<std::size_t>(m_x.size()), 0),
        m_active(static_cast<std::size_t>(limits.inequality.rows()), false) {
    for (Index j = 0; j < m_x.size(); ++j) {
      m_x[j] = std::clamp(m_x[j], limits.lower[j], limits.upper[j]);
      if (m_x[j] == limits.lower[j])
        fixed(j) = -1;
      else if (m_x[j] == limits.upper[j])
        fixed(j) = 1;
    }
  }

  VectorXd run() {
    const Index most = 40 * (m_x.size() + m_limits.inequality.rows()) + 200;
    for (Index i = 0; i < most; ++i) {
      const bool careful = i > most / 2; // lowest index first (Bland) once a cycle is possible
      collect();
      const VectorXd p = step();
      if (p.norm() <= 1e-12 * (1 + m_x.norm())) {
        if (!releaseOne(careful)) break;
      } else {
        walk(p);
      }
    }
    return m_x;
  }

private:
  int& fixed(Index j) { return m_fixed[static_cast<std::size_t>(j)]; }

  void collect() {
    m_free.clear();
    for (Index j = 0; j < m_x.size(); ++j) {
      if (fixed(j) == 0) m_free.push_back(j);
    }
    m_rows.clear();
    for (Index i = 0; i < m_limits.inequality.rows(); ++i) {
      if (m_active[static_cast<std::size_t>(i)]) m_rows.push_back(i);
    }
    const Index equalities = m_limits.equality.rows();
    const auto rows = equalities + static_cast<Index>(m_rows.size());
    m_working.resize(rows, m_x.size());
    if (equalities > 0) m_working.topRows(equalities) = m_limits.equality;
    for (std::size_t i = 0; i < m_rows.size(); ++i)
      m_working.row(equalities + static_cast<Index>(i)) = m_limits.inequality.row(m_rows[i]);
  }

  MatrixXd freeColumns(const MatrixXd& m) const {
    MatrixXd out(m.rows(), static_cast<Index>(m_free.size()));
    for (std::size_t i = 0; i < m_free.size(); ++i)
      out.col(static_cast<Index>(i)) = m.col(m_free[i]);
    return out;
  }

  /// The move of the free variables to their best point on the working limits (zero for the others).
  VectorXd step() {
    VectorXd p = VectorXd::Zero(m_x.size());
    if (m_free.empty()) return p;
    const MatrixXd working = freeColumns(m_working);
    const auto k = static_cast<Index>(m_free.size());
    if (m_leastNorm) return leastNormStep(working);
    MatrixXd null = MatrixXd::Identity(k, k);
    if (working.rows() > 0) {
      const RowSpace space(working, dependentBelow);
      if (space.rank() >= k) return p;
      null = space.nullSpace();
    }
    const VectorXd y = leastNormLeastSquares(freeColumns(m_a) * null, m_b - m_a * m_x);
    const VectorXd moved = null * y;
    for (std::size_t i = 0; i < m_free.size(); ++i)
      p[m_free[i]] = moved[static_cast<Index>(i)];
    return p;
  }

  /// The step where |x| itself is minimised: minus the part of x that the working limits leave free.
  VectorXd leastNormStep(const MatrixXd& working) const {
    VectorXd p = VectorXd::Zero(m_x.size());
    VectorXd own(static_cast<Index>(m_free.size()));
    for (std::size_t i = 0; i < m_free.size(); ++i)
      own[static_cast<Index>(i)] = m_x[m_free[i]];
    VectorXd kept = VectorXd::Zero(own.size());
    if (working.rows() > 0) {
      const RowSpace space(working, dependentBelow);
      if (space.rank() >= own.size()) return p;
      kept = space.projected(own);
    }
    for (std::size_t i = 0; i < m_free.size(); ++i)
      p[m_free[i]] = kept[static_cast<Index>(i)] - own[static_cast<Index>(i)];
    return p;
  }

  void walk(const VectorXd& p) {
    double alpha = 1;
    Index hitBound = -1, hitRow = -1;
    for (const auto j : m_free) {
      const double room = p[j] > 0 ? m_limits.upper[j] - m_x[j] : m_limits.lower[j] - m_x[j];
      if (p[j] == 0 || !std::isfinite(room)) continue;
      const double t = std::max(0.0, room / p[j]);
      if (t < alpha) {
        alpha = t;
        hitBound = j;
      }
    }
    for (Index i = 0; i < m_limits.inequality.rows(); ++i) {
      if (m_active[static_cast<std::size_t>(i)]) continue;
      const double rate = m_limits.inequality.row(i).dot(p);
      if (rate <= 1e-13 * m_limits.inequality.row(i).norm() * p.norm()) continue;
      const double t =
          std::max(0.0, (m_limits.inequalityRhs[i] - m_limits.inequality.row(i).dot(m_x)) / rate);
      if (t < alpha) {
        alpha = t;
        hitRow = i;
      }
    }
    m_x += alpha * p;
    if (hitRow >= 0) {
      m_active[static_cast<std::size_t>(hitRow)] = true;
    } else if (hitBound >= 0) {
      fixed(hitBound) = p[hitBound] > 0 ? 1 : -1;
      m_x[hitBound] = p[hitBound] > 0 ? m_limits.upper[hitBound] : m_limits.lower[hitBound];
    }
  }

  /// Drops the working limit that most holds back the fit; false at the optimum.
  bool releaseOne(bool careful) {
    const VectorXd gradient = m_leastNorm ? m_x : VectorXd(m_a.transpose() * (m_a * m_x - m_b));
    VectorXd multipliers = VectorXd::Zero(m_working.rows());
    if (m_working.rows() > 0 && !m_free.empty()) {
      VectorXd freeGradient(static_cast<Index>(m_free.size()));
      for (std::size_t i = 0; i < m_free.size(); ++i)
        freeGradient[static_cast<Index>(i)] = -gradient[m_free[i]];
      multipliers = leastNormLeastSquares(freeColumns(m_working).transpose(), freeGradient);
    }
    const VectorXd reduced = gradient + m_working.transpose() * multipliers;
    const double scale = 1e-10 * (m_a.norm() * (m_b.norm() + (m_a * m_x).norm()) + 1e-300);
    double worst = -scale;
    Index bound = -1, row = -1;
    for (Index j = 0; j < m_x.size(); ++j) {
      if (fixed(j) == 0 || m_limits.upper[j] <= m_limits.lower[j]) continue;
      const double sign = fixed(j) < 0 ? reduced[j] : -reduced[j];
      if (sign < worst) {
        worst = careful ? -scale : sign;
        bound = j;
        if (careful) break;
      }
    }
    for (std::size_t i = 0; i < m_rows.size() && !(careful && bound >= 0); ++i) {
      const Index k = m_limits.equality.rows() + static_cast<Index>(i);
      const double sign = multipliers[k] * m_working.row(k).norm();
      if (sign < worst) {
        worst = sign;
        row = m_rows[i];
      }
    }
    if (row >= 0)
      m_active[static_cast<std::size_t>(row)] = false;
    else if (bound >= 0)
      fixed(bound) = 0;
    return row >= 0 || bound >= 0;
  }

  const MatrixXd& m_a;
  const VectorXd& m_b;
  const LinearLimits& m_limits;
  bool m_leastNorm;
  VectorXd m_x;
  std::vector<int> m_fixed; ///< -1 at lower, 1 at upper, 0 free
  std::vector<bool> m_active;
  std::vector<Index> m_free, m_rows;
  MatrixXd m_working;
};

void appendRow(MatrixXd& rows, VectorXd& rhs, const Eigen::RowVectorXd& row, double value) {
  const Index n = rows.rows();
  rows.conservativeResize(n + 1, row.size());
  rows.row(n) = row;
  rhs.conservativeResize(n + 1);
  rhs[n] = value;
}

} // namespace

LinearLimits LinearLimits::boundsOnly(VectorXd lower, VectorXd upper) {
  LinearLimits limits;
  limits.equality.resize(0, lower.size());
  limits.inequality.resize(0, lower.size());
  limits.lower = std::move(lower);
  limits.upper = std::move(upper);
  return limits;
}

void LinearLimits::addInequality(const Eigen::RowVectorXd& row, double rhs) {
  appendRow(inequality, inequalityRhs, row, rhs);
}

void LinearLimits::addEquality(const Eigen::RowVectorXd& row, double rhs) {
  appendRow(equality, equalityRhs, row, rhs);
}

std::optional<VectorXd> feasiblePoint(const LinearLimits& limits) {
  // With a slack per inequality, "find a point" is a bounded least-squares fit with residual zero.
  const Index n = limits.lower.size(), e = limits.equality.rows(), g = limits.inequality.rows();
  if (e + g == 0) return limits.lower;
  MatrixXd a = MatrixXd::Zero(e + g, n + g);
  VectorXd b(e + g), lower = VectorXd::Zero(n + g), upper(n + g);
  upper.setConstant(std::numeric_limits<double>::infinity());
  lower.head(n) = limits.lower;
  upper.head(n) = limits.upper;
  for (Index i = 0; i < e + g; ++i) {
    const bool isEquality = i < e;
    const Eigen::RowVectorXd row = isEquality ? limits.equality.row(i) : limits.inequality.row(i - e);
    const double rhs = isEquality ? limits.equalityRhs[i] : limits.inequalityRhs[i - e];
    const double scale = rowScale(row, rhs);
    a.row(i).head(n) = row / scale;
    b[i] = rhs / scale;
    if (!isEquality) a(i, n + i - e) = 1;
  }
  const VectorXd x = boundedLeastSquares(a, b, lower, upper);
  if ((a * x - b).cwiseAbs().maxCoeff() > 1e-9) return std::nullopt;
  return x.head(n);
}

VectorXd constrainedLeastSquares(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits,
                                 const VectorXd& start) {
  return ActiveSet(a, b, limits, start).run();
}

VectorXd leastNormWithin(const LinearLimits& limits, const VectorXd& start) {
  const MatrixXd identity = MatrixXd::Identity(start.size(), start.size());
  return ActiveSet(identity, VectorXd::Zero(start.size()), limits, start, true).run();
}

} // namespace butte::core
