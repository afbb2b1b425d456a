#include "solve/bounded_least_squares.h"

#include "algebra/factors.h"
#include <cmath>
#include <vector>

namespace butte::core {
namespace {

enum class Place { AtLower, AtUpper, Free };

} // namespace

class BoundedFit::Search {
public:
  Search(const BoundedFit& fit, const Eigen::VectorXd& lower, const Eigen::VectorXd& upper)
      : m_a(fit.m_a), m_b(fit.m_b), m_lower(lower), m_upper(upper), m_x(lower), m_factor(fit.m_factor),
        m_place(static_cast<std::size_t>(m_a.cols()), Place::AtLower),
        m_barred(static_cast<std::size_t>(m_a.cols()), false) {}

  /// Frees what stands between its bounds at the guess, and walks to the best point of it. Where those
  /// columns depend on each other the search begins at the lower bounds as ever.
  void beginAt(const Eigen::VectorXd& guess) {
    for (Eigen::Index j = 0; j < guess.size(); ++j) {
      m_x[j] = std::clamp(guess[j], m_lower[j], m_upper[j]);
      if (m_x[j] > m_lower[j] && m_x[j] < m_upper[j]) {
        m_free.push_back(j);
        place(j) = Place::Free;
      } else if (m_x[j] > m_lower[j]) {
        place(j) = Place::AtUpper;
      }
    }
    for (Eigen::VectorXd z; !m_free.empty();) {
      if (!solveFree(z)) return beginAtLower();
      if (walk(z)) return;
    }
  }

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
    return m_x;
  }

  /// The last answer once more by orthogonal factors, which do not square the condition number.
  Eigen::VectorXd polished() {
    if (m_free.empty()) return m_x;
    const auto k = static_cast<Eigen::Index>(m_free.size());
    Eigen::MatrixXd columns(m_a.rows(), k);
    Eigen::VectorXd fixed = m_x;
    for (Eigen::Index i = 0; i < k; ++i) {
      columns.col(i) = m_a.col(m_free[static_cast<std::size_t>(i)]);
      fixed[m_free[static_cast<std::size_t>(i)]] = 0;
    }
    const Eigen::VectorXd z = leastSquares(columns, m_b - m_a * fixed);
    for (Eigen::Index i = 0; i < k; ++i) {
      const auto j = m_free[static_cast<std::size_t>(i)];
      m_x[j] = std::clamp(z[i], m_lower[j], m_upper[j]);
    }
    return m_x;
  }

private:
  void beginAtLower() {
    m_x = m_lower;
    m_free.clear();
    std::fill(m_place.begin(), m_place.end(), Place::AtLower);
  }

  /// What these columns leave of b at x; most stand at zero.
  template <class Taken> void takeResidual(Taken taken) {
    m_residual = m_b;
    for (Eigen::Index j = 0; j < m_x.size(); ++j) {
      if (m_x[j] != 0 && taken(j)) m_residual -= m_x[j] * m_a.col(j);
    }
  }

  Place& place(Eigen::Index j) { return m_place[static_cast<std::size_t>(j)]; }

  /// The bound variable whose release lowers the residual fastest; -1 at the optimum.
  Eigen::Index pickEntering() {
    // By A itself, not by A' A: near the optimum the difference is all there is.
    takeResidual([](Eigen::Index) { return true; });
    const double scale = 1e-13 * (m_b.norm() + m_residual.norm());
    Eigen::Index best = -1;
    double bestRate = 0;
    for (Eigen::Index j = 0; j < m_a.cols(); ++j) {
      if (place(j) == Place::Free || m_barred[static_cast<std::size_t>(j)] || m_upper[j] <= m_lower[j])
        continue;
      const double descent = m_a.col(j).dot(m_residual);
      const double rate = (place(j) == Place::AtLower ? descent : -descent) * m_factor.scale()[j];
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

  /// The best point of the free columns; false where they depend on each other.
  bool solveFree(Eigen::VectorXd& z) {
    if (!m_factor.take(m_free)) return false;
    takeResidual([this](Eigen::Index j) { return place(j) != Place::Free; });
    z = m_factor.nearest(m_residual);
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

  const Eigen::MatrixXd& m_a;
  const Eigen::VectorXd& m_b;
  const Eigen::VectorXd& m_lower;
  const Eigen::VectorXd& m_upper;
  Eigen::VectorXd m_x, m_residual;
  ColumnFactor m_factor;
  std::vector<Place> m_place;
  std::vector<bool> m_barred;
  std::vector<Eigen::Index> m_free;
};

BoundedFit::BoundedFit(const Eigen::MatrixXd& a, const Eigen::VectorXd& b) : m_a(a), m_b(b), m_factor(a) {}

double BoundedFit::residualSquared(const Eigen::VectorXd& x) const {
  return (m_a * x - m_b).squaredNorm();
}

Eigen::VectorXd BoundedFit::within(const Eigen::VectorXd& lower, const Eigen::VectorXd& upper) const {
  Search search(*this, lower, upper);
  search.run();
  return search.polished();
}

Eigen::VectorXd BoundedFit::near(const Eigen::VectorXd& guess, const Eigen::VectorXd& lower,
                                 const Eigen::VectorXd& upper) const {
  Search search(*this, lower, upper);
  search.beginAt(guess);
  return search.run();
}

Eigen::VectorXd boundedLeastSquares(const Eigen::MatrixXd& a, const Eigen::VectorXd& b,
                                    const Eigen::VectorXd& lower, const Eigen::VectorXd& upper) {
  return BoundedFit(a, b).within(lower, upper);
}

} // namespace butte::core
