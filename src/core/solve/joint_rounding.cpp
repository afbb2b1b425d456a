#include "solve/joint_rounding.h"

#include "algebra/factors.h"
#include "solve/linear_model.h"

#include <cmath>

namespace butte::core {
namespace {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

/// Pulls towards the computed weight where the elements don't care: a step off counts like a thousandth of a
/// percent of an element.
constexpr double pull = 1e-5;

/// Minimises |R y - c| over whole y >= least, R upper triangular.
class LatticeSearch {
public:
  LatticeSearch(const MatrixXd& r, const VectorXd& c, const VectorXd& least, VectorXd start)
      : m_r(r), m_c(c), m_least(least), m_best(std::move(start)), m_y(m_best) {
    m_bound = (m_r * m_best - m_c).squaredNorm();
    descend(m_r.cols() - 1, 0);
  }
  const VectorXd& best() const { return m_best; }
  bool proven() const { return m_nodes > 0; }

private:
  void descend(Index level, double sum) {
    if (m_nodes <= 0) return;
    if (level < 0) {
      m_bound = sum;
      m_best = m_y;
      return;
    }
    double rest = m_c[level];
    for (Index j = level + 1; j < m_r.cols(); ++j)
      rest -= m_r(level, j) * m_y[j];
    const double centre = rest / m_r(level, level);
    // Whole numbers from the nearest outwards; below the floor there are none.
    double down = std::floor(centre), up = down + 1;
    if (down < m_least[level]) {
      down = m_least[level] - 1;
      up = std::max(up, m_least[level]);
    }
    while (m_nodes > 0) {
      const bool below = down >= m_least[level] && centre - down <= up - centre;
      const double y = below ? down-- : up++;
      const double miss = m_r(level, level) * (y - centre);
      if (sum + miss * miss >= m_bound * (1 - 1e-12)) return;
      --m_nodes;
      m_y[level] = y;
      descend(level - 1, sum + miss * miss);
    }
  }

  const MatrixXd& m_r;
  const VectorXd& m_c;
  const VectorXd& m_least;
  VectorXd m_best, m_y;
  double m_bound = 0;
  int m_nodes = 200000;
};

} // namespace

RoundedWeights roundTogether(const SolveRequest& request, const std::vector<Mass>& grams,
                             const std::vector<Mass>& steps) {
  const LinearModel model = buildModel(request);
  const MatrixXd a = model.scaledMatrix();
  const auto products = static_cast<Index>(request.shelf.size());
  VectorXd exact = VectorXd::Zero(products), plain = VectorXd::Zero(products);
  std::vector<Index> free;
  for (Index j = 0; j < exact.size(); ++j) {
    const auto k = static_cast<std::size_t>(j);
    exact[j] = plain[j] = (grams[k] / request.volume).gramsPerLitre();
    if (grams[k] > Mass{} && steps[k] > Mass{} && !request.shelf[k].locked) free.push_back(j);
  }
  const auto n = static_cast<Index>(free.size());
  MatrixXd wide = MatrixXd::Zero(a.rows() + n, n);
  VectorXd rhs = VectorXd::Zero(a.rows() + n), start = VectorXd::Zero(n);
  const VectorXd least = VectorXd::Zero(n);
  VectorXd fixed = exact;
  for (Index f = 0; f < n; ++f) {
    const Index j = free[static_cast<std::size_t>(f)];
    const double step = (steps[static_cast<std::size_t>(j)] / request.volume).gramsPerLitre();
    wide.col(f).head(a.rows()) = a.col(j) * step;
    wide(a.rows() + f, f) = pull;
    rhs[a.rows() + f] = pull * exact[j] / step;
    start[f] = std::floor(exact[j] / step + 0.5);
    plain[j] = start[f] * step;
    fixed[j] = 0;
  }
  // The formula as computed is the aim, not the target: where bands or prices decided, rounding must not undo
  // it. (For the nearest fit the two are the same: its misfit stands at right angles to all that can move.)
  rhs.head(a.rows()) = a * (exact - fixed);
  RoundedWeights out;
  out.grams = grams;
  const auto misfitOf = [&](const VectorXd& x) { return (a * (x - exact)).squaredNorm(); };
  out.oneByOne = misfitOf(plain);
  out.misfit = out.oneByOne;
  if (n == 0) return out;
  const auto form = triangularForm(wide, rhs);
  const LatticeSearch search(form.r, form.c, least, start);
  VectorXd x = exact;
  for (Index f = 0; f < n; ++f) {
    const auto k = static_cast<std::size_t>(free[static_cast<std::size_t>(f)]);
    out.grams[k] = search.best()[f] * steps[k];
    x[free[static_cast<std::size_t>(f)]] = (out.grams[k] / request.volume).gramsPerLitre();
  }
  out.misfit = misfitOf(x);
  out.proven = search.proven();
  return out;
}

} // namespace butte::core
