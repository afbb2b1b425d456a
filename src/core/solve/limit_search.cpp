#include "solve/limit_search.h"

#include "solve/glpk_problem.h"

#include <glpk.h>

namespace butte::core {

using Eigen::Index;

namespace {

Eigen::MatrixXd allRows(const LinearLimits& limits, const RowRanges& ranges) {
  const Index equalities = limits.equality.rows();
  Eigen::MatrixXd rows(equalities + static_cast<Index>(ranges.size()), limits.lower.size());
  if (equalities > 0) rows.topRows(equalities) = limits.equality;
  for (std::size_t r = 0; r < ranges.size(); ++r)
    rows.row(equalities + static_cast<Index>(r)) = limits.inequality.row(ranges.firstOf(r));
  return rows;
}

std::vector<BoundedSimplex::Ends> allEnds(const LinearLimits& limits, const RowRanges& ranges) {
  std::vector<BoundedSimplex::Ends> ends;
  for (Index i = 0; i < limits.equality.rows(); ++i)
    ends.push_back({limits.equalityRhs[i], limits.equalityRhs[i]});
  for (std::size_t r = 0; r < ranges.size(); ++r)
    ends.push_back({ranges[r].least, ranges[r].most});
  return ends;
}

} // namespace

LimitSearch::LimitSearch(LinearLimits limits, const Eigen::VectorXd& inside)
    : m_limits(std::move(limits)), m_ranges(m_limits),
      m_simplex(allRows(m_limits, m_ranges), allEnds(m_limits, m_ranges), m_limits.lower, m_limits.upper,
                inside) {}

void LimitSearch::setMost(Index inequality, double most) {
  m_limits.inequalityRhs[inequality] = most;
  const auto row = m_ranges.setMost(inequality, most);
  m_simplex.setRowEnds(m_limits.equality.rows() + static_cast<Index>(row),
                       {m_ranges[row].least, m_ranges[row].most});
}

std::optional<double> LimitSearch::least(const Eigen::RowVectorXd& direction) {
  if (m_ranges.contradict()) return std::nullopt;
  switch (m_simplex.least(direction)) {
  case BoundedSimplex::Outcome::Unbounded:
    return std::nullopt;
  case BoundedSimplex::Outcome::InDoubt:
    return leastByLibrary(direction);
  case BoundedSimplex::Outcome::Optimal:
    break;
  }
  m_rowPrices.resize(m_limits.equality.rows() + static_cast<Index>(m_ranges.size()));
  for (Index i = 0; i < m_rowPrices.size(); ++i)
    m_rowPrices[i] = m_simplex.priceOfRow(i);
  m_columnPrices.resize(direction.size());
  for (Index j = 0; j < m_columnPrices.size(); ++j)
    m_columnPrices[j] = m_simplex.priceOfVariable(j);
  return m_simplex.value();
}

std::optional<double> LimitSearch::leastByLibrary(const Eigen::RowVectorXd& direction) {
  GlpkProblem problem(m_limits);
  glp_scale_prob(problem.get(), GLP_SF_GM | GLP_SF_EQ);
  problem.setCost(direction);
  glp_smcp control;
  glp_init_smcp(&control);
  control.msg_lev = GLP_MSG_OFF;
  control.it_lim = 5000;
  control.meth = GLP_PRIMAL;
  glp_simplex(problem.get(), &control);
  if (glp_get_status(problem.get()) != GLP_OPT) return std::nullopt;
  m_rowPrices = problem.rowPrices();
  m_columnPrices = problem.columnPrices();
  return glp_get_obj_val(problem.get());
}

double LimitSearch::reliefOfInequality(Index inequality) const {
  const auto [row, upper] = m_ranges.sideOf(inequality);
  const double price = m_rowPrices[m_limits.equality.rows() + static_cast<Index>(row)];
  return std::max(0.0, upper ? -price : price);
}

double LimitSearch::reliefOfEquality(Index equality) const {
  return -m_rowPrices[equality];
}

double LimitSearch::reliefOfBound(Index column) const {
  return -m_columnPrices[column];
}

} // namespace butte::core
