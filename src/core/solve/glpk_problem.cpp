#include "solve/glpk_problem.h"

#include <cmath>
#include <glpk.h>

namespace butte::core {

using Eigen::Index;

GlpkProblem::GlpkProblem(const LinearLimits& limits)
    : m_lp(glp_create_prob()), m_equalities(static_cast<int>(limits.equality.rows())), m_ranges(limits) {
  glp_term_out(GLP_OFF);
  glp_set_obj_dir(m_lp, GLP_MIN);
  if (limits.lower.size() > 0) glp_add_cols(m_lp, static_cast<int>(limits.lower.size()));
  for (Index j = 0; j < limits.lower.size(); ++j)
    setBounds(j, limits.lower[j], limits.upper[j]);
  const int rows = m_equalities + static_cast<int>(m_ranges.size());
  if (rows > 0) glp_add_rows(m_lp, rows);
  for (int i = 0; i < m_equalities; ++i)
    glp_set_row_bnds(m_lp, i + 1, GLP_FX, limits.equalityRhs[i], limits.equalityRhs[i]);
  for (std::size_t r = 0; r < m_ranges.size(); ++r)
    applyEnds(r);
  loadMatrix(limits);
}

GlpkProblem::~GlpkProblem() {
  glp_delete_prob(m_lp);
}

void GlpkProblem::loadMatrix(const LinearLimits& limits) {
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
  for (std::size_t r = 0; r < m_ranges.size(); ++r)
    add(numberOf(r), limits.inequality.row(m_ranges.firstOf(r)));
  glp_load_matrix(m_lp, static_cast<int>(values.size()) - 1, rows.data(), columns.data(), values.data());
}

void GlpkProblem::applyEnds(std::size_t row) {
  const auto [least, most] = m_ranges[row];
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
  applyEnds(m_ranges.setMost(inequality, most));
}

bool GlpkProblem::contradicts() const {
  return m_ranges.contradict();
}

Eigen::VectorXd GlpkProblem::x() const {
  Eigen::VectorXd out(glp_get_num_cols(m_lp));
  for (Index j = 0; j < out.size(); ++j)
    out[j] = glp_get_col_prim(m_lp, static_cast<int>(j) + 1);
  return out;
}

Eigen::VectorXd GlpkProblem::rowPrices() const {
  Eigen::VectorXd out(glp_get_num_rows(m_lp));
  for (Index i = 0; i < out.size(); ++i)
    out[i] = glp_get_row_dual(m_lp, static_cast<int>(i) + 1);
  return out;
}

Eigen::VectorXd GlpkProblem::columnPrices() const {
  Eigen::VectorXd out(glp_get_num_cols(m_lp));
  for (Index j = 0; j < out.size(); ++j)
    out[j] = glp_get_col_dual(m_lp, static_cast<int>(j) + 1);
  return out;
}

} // namespace butte::core
