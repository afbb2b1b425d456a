#include "solve/glpk_problem.h"

#include <algorithm>
#include <cmath>
#include <glpk.h>
#include <limits>

namespace butte::core {

using Eigen::Index;

namespace {

constexpr double infinity = std::numeric_limits<double>::infinity();

/// Edges nearer to each other than this, in the rows' own size, are one point: rounding parted them.
bool crossed(double least, double most) {
  return least - most > 1e-12 * (1 + std::abs(least) + std::abs(most));
}

} // namespace

GlpkProblem::GlpkProblem(const LinearLimits& limits)
    : m_lp(glp_create_prob()), m_equalities(static_cast<int>(limits.equality.rows())) {
  glp_term_out(GLP_OFF);
  glp_set_obj_dir(m_lp, GLP_MIN);
  if (limits.lower.size() > 0) glp_add_cols(m_lp, static_cast<int>(limits.lower.size()));
  for (Index j = 0; j < limits.lower.size(); ++j)
    setBounds(j, limits.lower[j], limits.upper[j]);
  std::vector<Index> firsts; // the inequality that each row is written after
  for (Index i = 0; i < limits.inequality.rows(); ++i) {
    const bool second = !firsts.empty() && firsts.back() == i - 1 &&
                        limits.inequality.row(i) == -limits.inequality.row(i - 1);
    if (second) {
      m_rows.back().least = -limits.inequalityRhs[i];
    } else {
      firsts.push_back(i);
      m_rows.push_back({-infinity, limits.inequalityRhs[i]});
    }
    m_sides.push_back({m_rows.size() - 1, !second});
  }
  const int rows = m_equalities + static_cast<int>(m_rows.size());
  if (rows > 0) glp_add_rows(m_lp, rows);
  for (int i = 0; i < m_equalities; ++i)
    glp_set_row_bnds(m_lp, i + 1, GLP_FX, limits.equalityRhs[i], limits.equalityRhs[i]);
  for (std::size_t r = 0; r < m_rows.size(); ++r)
    applyBounds(r);
  loadMatrix(limits, firsts);
}

GlpkProblem::~GlpkProblem() {
  glp_delete_prob(m_lp);
}

void GlpkProblem::loadMatrix(const LinearLimits& limits, const std::vector<Index>& inequalities) {
  std::vector<int> rows{0}, columns{0}; // GLPK counts from 1
  std::vector<double> values{0};
  const auto add = [&](int row, const auto& coefficients) {
    for (Index j = 0; j < coefficients.size(); ++j) {
      if (coefficients[j] == 0) continue;
      rows.push_back(row);
      columns.push_back(static_cast<int>(j) + 1);
      values.push_back(coefficients[j]);
    }
  };
  for (int i = 0; i < m_equalities; ++i)
    add(i + 1, limits.equality.row(i));
  for (std::size_t r = 0; r < inequalities.size(); ++r)
    add(numberOf(r), limits.inequality.row(inequalities[r]));
  glp_load_matrix(m_lp, static_cast<int>(values.size()) - 1, rows.data(), columns.data(), values.data());
}

void GlpkProblem::applyBounds(std::size_t row) {
  const auto [least, most] = m_rows[row];
  const bool below = std::isfinite(least), above = std::isfinite(most);
  const int kind = below && above ? (least < most ? GLP_DB : GLP_FX)
                   : above        ? GLP_UP
                   : below        ? GLP_LO
                                  : GLP_FR;
  glp_set_row_bnds(m_lp, numberOf(row), kind, least, most);
}

void GlpkProblem::setCost(const Eigen::VectorXd& cost) {
  for (Index j = 0; j < cost.size(); ++j)
    glp_set_obj_coef(m_lp, static_cast<int>(j) + 1, cost[j]);
}

void GlpkProblem::setBounds(Index column, double lower, double upper) {
  const int kind = !std::isfinite(upper) ? GLP_LO : upper <= lower ? GLP_FX : GLP_DB;
  glp_set_col_bnds(m_lp, static_cast<int>(column) + 1, kind, lower, upper);
}

void GlpkProblem::setMost(Index inequality, double most) {
  const auto [row, upper] = m_sides[static_cast<std::size_t>(inequality)];
  (upper ? m_rows[row].most : m_rows[row].least) = upper ? most : -most;
  applyBounds(row);
}

bool GlpkProblem::contradicts() const {
  return std::any_of(m_rows.begin(), m_rows.end(),
                     [](const Row& row) { return crossed(row.least, row.most); });
}

Eigen::VectorXd GlpkProblem::x() const {
  Eigen::VectorXd out(glp_get_num_cols(m_lp));
  for (Index j = 0; j < out.size(); ++j)
    out[j] = glp_get_col_prim(m_lp, static_cast<int>(j) + 1);
  return out;
}

double GlpkProblem::reliefOfInequality(Index inequality) const {
  const auto [row, upper] = m_sides[static_cast<std::size_t>(inequality)];
  const double dual = glp_get_row_dual(m_lp, numberOf(row));
  return std::max(0.0, upper ? -dual : dual);
}

double GlpkProblem::reliefOfEquality(Index equality) const {
  return -glp_get_row_dual(m_lp, static_cast<int>(equality) + 1);
}

double GlpkProblem::reliefOfBound(Index column) const {
  return -glp_get_col_dual(m_lp, static_cast<int>(column) + 1);
}

} // namespace butte::core
