#include "solve/bounded_least_squares.h"

#include <cmath>
#include <vector>

namespace butte::core {
namespace {

enum class Place { AtLower, AtUpper, Free };

class Search {
public:
  Search(const Eigen::MatrixXd& a, const Eigen::VectorXd& b, const Eigen::VectorXd& lower,
         const Eigen::VectorXd& upper)
      : m_a(a), m_b(b), m_lower(lower), m_upper(upper), m_gram(a.transpose() * a), m_x(lower),
        m_place(static_cast<std::size_t>(a.cols()), Place::AtLower),
        m_barred(static_cast<std::size_t>(a.cols()), false) {}

  Eigen::VectorXd run() {
    const int most = 20 * static_cast<int>(m_a.cols()) + 100;
    for (int i = 0; i < most; ++i) {
      const auto entering = pickEntering();
      if (entering < 0) break;
      if (enter(entering))
        std::fill(m_barred.begin(), m_barred.end(), false);
      else
        m_barred[static_cast<std::size_t>(entering)] = true;
    }
    polish();
    return m_x;
  }

private:
  Place& place(Eigen::Index j) { return m_place[static_cast<std::size_t>(j)]; }

  /// The bound variable whose release lowers the residual fastest; -1 at the optimum.
  Eigen::Index pickEntering() {
    const Eigen::VectorXd residual = m_b - m_a * m_x;
    const Eigen::VectorXd descent = m_a.transpose() * residual;
    const double scale = 1e-13 * (m_b.norm() + residual.norm());
    Eigen::Index best = -1;
    double bestRate = 0;
    for (Eigen::Index j = 0; j < m_a.cols(); ++j) {
      if (place(j) == Place::Free || m_barred[static_cast<std::size_t>(j)] || m_upper[j] <= m_lower[j])
        continue;
      const double norm = std::sqrt(m_gram(j, j));
      if (norm == 0) continue;
      const double rate = (place(j) == Place::AtLower ? descent[j] : -descent[j]) / norm;
      if (rate > scale && rate > bestRate * (1 + 1e-12)) {
        best = j;
        bestRate = rate;
      }
    }
    return best;
  }

  /// Frees `j` and walks to the best point of the free columns, giving up free columns that meet a bound.
  /// False when j's column depends on the free ones or does not move inward: nothing has changed then.
  bool enter(Eigen::Index j) {
    const Place before = place(j);
    m_free.push_back(j);
    place(j) = Place::Free;
    bool first = true;
    while (!m_free.empty()) {
      Eigen::VectorXd z;
      const bool solved = solveFree(z);
      const double move = solved && first ? z[static_cast<Eigen::Index>(m_free.size()) - 1] - m_x[j] : 0;
      if (!solved || (first && (before == Place::AtLower ? move <= 0 : move >= 0))) {
        if (!first) break; // numerically dependent after a removal: keep the feasible point reached
        m_free.pop_back();
        place(j) = before;
        return false;
      }
      first = false;
      if (walk(z)) break;
    }
    return true;
  }

  bool solveFree(Eigen::VectorXd& z) const {
    const auto k = static_cast<Eigen::Index>(m_free.size());
    Eigen::VectorXd fixed = m_x;
    for (const auto j : m_free)
      fixed[j] = 0;
    const Eigen::VectorXd rhs = m_b - m_a * fixed;
    Eigen::MatrixXd gram(k, k);
    Eigen::VectorXd projected(k), scale(k);
    for (Eigen::Index r = 0; r < k; ++r)
      scale[r] = 1 / std::sqrt(m_gram(m_free[r], m_free[r]));
    for (Eigen::Index r = 0; r < k; ++r) {
      projected[r] = scale[r] * m_a.col(m_free[r]).dot(rhs);
      for (Eigen::Index c = 0; c < k; ++c)
        gram(r, c) = scale[r] * m_gram(m_free[r], m_free[c]) * scale[c];
    }
    const Eigen::LLT<Eigen::MatrixXd> cholesky(gram);
    if (cholesky.info() != Eigen::Success) return false;
    // With unit columns the smallest pivot is the sine of the angle to the others: below this, dependent.
    if (cholesky.matrixLLT().diagonal().minCoeff() < 1e-6) return false;
    z = cholesky.solve(projected).cwiseProduct(scale);
    return true;
  }

  /// Moves towards z until a bound; true when z was reached.
  bool walk(const Eigen::VectorXd& z) {
    double alpha = 1;
    for (std::size_t i = 0; i < m_free.size(); ++i) {
      const auto j = m_free[i];
      const double target = z[static_cast<Eigen::Index>(i)];
      const double bound = target < m_lower[j] ? m_lower[j] : target > m_upper[j] ? m_upper[j] : target;
      if (bound != target) alpha = std::min(alpha, (bound - m_x[j]) / (target - m_x[j]));
    }
    std::vector<Eigen::Index> stillFree;
    for (std::size_t i = 0; i < m_free.size(); ++i) {
      const auto j = m_free[i];
      const double target = z[static_cast<Eigen::Index>(i)];
      const double next = m_x[j] + alpha * (target - m_x[j]);
      const double tiny = 1e-14 * (std::abs(m_x[j]) + std::abs(target));
      if (target < m_lower[j] && next <= m_lower[j] + tiny) {
        m_x[j] = m_lower[j];
        place(j) = Place::AtLower;
      } else if (target > m_upper[j] && next >= m_upper[j] - tiny) {
        m_x[j] = m_upper[j];
        place(j) = Place::AtUpper;
      } else {
        m_x[j] = next;
        stillFree.push_back(j);
      }
    }
    m_free = std::move(stillFree);
    return alpha >= 1;
  }

  /// The last answer once more by orthogonal factors, which do not square the condition number.
  void polish() {
    if (m_free.empty()) return;
    const auto k = static_cast<Eigen::Index>(m_free.size());
    Eigen::MatrixXd columns(m_a.rows(), k);
    Eigen::VectorXd fixed = m_x;
    for (Eigen::Index i = 0; i < k; ++i) {
      columns.col(i) = m_a.col(m_free[static_cast<std::size_t>(i)]);
      fixed[m_free[static_cast<std::size_t>(i)]] = 0;
    }
    const Eigen::VectorXd z = columns.colPivHouseholderQr().solve(m_b - m_a * fixed);
    for (Eigen::Index i = 0; i < k; ++i) {
      const auto j = m_free[static_cast<std::size_t>(i)];
      m_x[j] = std::clamp(z[i], m_lower[j], m_upper[j]);
    }
  }

  const Eigen::MatrixXd& m_a;
  const Eigen::VectorXd& m_b;
  const Eigen::VectorXd& m_lower;
  const Eigen::VectorXd& m_upper;
  Eigen::MatrixXd m_gram;
  Eigen::VectorXd m_x;
  std::vector<Place> m_place;
  std::vector<bool> m_barred;
  std::vector<Eigen::Index> m_free;
};

} // namespace

Eigen::VectorXd boundedLeastSquares(const Eigen::MatrixXd& a, const Eigen::VectorXd& b,
                                    const Eigen::VectorXd& lower, const Eigen::VectorXd& upper) {
  return Search(a, b, lower, upper).run();
}

} // namespace butte::core
