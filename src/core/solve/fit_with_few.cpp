#include "solve/fit_with_few.h"

#include "solve/bounded_least_squares.h"

#include <limits>

namespace butte::core {
namespace {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

class FewSearch {
public:
  FewSearch(const MatrixXd& a, const VectorXd& b, const VectorXd& lower, const VectorXd& upper, int most,
            int nodes)
      : m_a(a), m_bounded(a, b), m_lower(lower), m_upper(upper), m_most(most), m_nodes(nodes) {}

  FewColumns run() {
    const Fit whole = fitOf(m_bounded.within(m_lower, m_upper));
    eliminate(m_upper, whole);
    std::vector<bool> forced(static_cast<std::size_t>(m_a.cols()));
    for (Index j = 0; j < m_a.cols(); ++j)
      forced[static_cast<std::size_t>(j)] = m_lower[j] > 0;
    descend(m_upper, forced, whole);
    return {m_bestUsed, m_nodes > 0};
  }

private:
  struct Fit {
    VectorXd x;
    double badness;
    std::vector<Index> support;
  };

  /// The best within other upper bounds, from an answer near it.
  Fit fit(const VectorXd& upper, const Fit& from) {
    --m_nodes;
    return fitOf(m_bounded.near(from.x, m_lower, upper));
  }

  Fit fitOf(VectorXd x) const {
    Fit out{std::move(x), 0, {}};
    out.badness = m_bounded.residualSquared(out.x);
    for (Index j = 0; j < out.x.size(); ++j) {
      if (out.x[j] > 1e-9) out.support.push_back(j);
    }
    return out;
  }

  void take(const Fit& found) {
    if (found.badness >= m_best) return;
    m_best = found.badness;
    m_bestUsed.assign(static_cast<std::size_t>(m_a.cols()), false);
    for (const auto j : found.support)
      m_bestUsed[static_cast<std::size_t>(j)] = true;
  }

  /// Takes away, one after the other, the product that is missed least.
  void eliminate(VectorXd upper, Fit now) {
    while (static_cast<int>(now.support.size()) > m_most) {
      Index least = -1;
      Fit after;
      for (const auto j : now.support) {
        if (m_lower[j] > 0) continue;
        VectorXd without = upper;
        without[j] = 0;
        Fit tried = fit(without, now);
        if (least >= 0 && tried.badness >= after.badness) continue;
        least = j;
        after = std::move(tried);
      }
      if (least < 0) return; // what is held alone is too many
      upper[least] = 0;
      now = std::move(after);
    }
    take(now);
  }

  /// `now` is the best fit within `upper`.
  void descend(const VectorXd& upper, const std::vector<bool>& forced, const Fit& now) {
    if (m_nodes <= 0) return;
    if (now.badness >= m_best * (1 - 1e-10) - 1e-15) return;
    if (static_cast<int>(now.support.size()) <= m_most) return take(now);
    int held = 0;
    for (Index j = 0; j < upper.size(); ++j)
      held += forced[static_cast<std::size_t>(j)] && upper[j] > 0;
    // Branch where the product matters most: without it the bound rises fastest.
    Index branch = -1;
    double size = -1;
    for (const auto j : now.support) {
      const double reach = m_a.col(j).norm() * now.x[j];
      if (forced[static_cast<std::size_t>(j)] || reach <= size) continue;
      branch = j;
      size = reach;
    }
    if (branch < 0) return;
    auto with = forced;
    with[static_cast<std::size_t>(branch)] = true;
    if (held + 1 < m_most) {
      descend(upper, with, now); // nothing is taken away yet: the fit stays
    } else if (held + 1 == m_most) {
      VectorXd room = upper;
      for (Index j = 0; j < upper.size(); ++j) {
        if (!with[static_cast<std::size_t>(j)]) room[j] = 0;
      }
      descend(room, with, fit(room, now));
    }
    VectorXd without = upper;
    without[branch] = 0;
    descend(without, forced, fit(without, now));
  }

  const MatrixXd& m_a;
  BoundedFit m_bounded;
  const VectorXd& m_lower;
  const VectorXd& m_upper;
  int m_most, m_nodes;
  double m_best = std::numeric_limits<double>::infinity();
  std::vector<bool> m_bestUsed;
};

} // namespace

FewColumns fitWithFew(const MatrixXd& a, const VectorXd& b, const VectorXd& lower, const VectorXd& upper,
                      int most, int mostNodes) {
  return FewSearch(a, b, lower, upper, most, mostNodes).run();
}

} // namespace butte::core
