#include "solve/limit_search.h"

#include <cmath>
#include <glpk.h>
#include <vector>

namespace butte::core {

using Eigen::Index;

struct LimitSearch::State {
  glp_prob* lp = glp_create_prob();
  int equalities = 0;
  ~State() { glp_delete_prob(lp); }

  void setRow(int row, const Eigen::RowVectorXd& coefficients) {
    std::vector<int> columns{0};
    std::vector<double> values{0};
    for (Index j = 0; j < coefficients.size(); ++j) {
      if (coefficients[j] == 0) continue;
      columns.push_back(static_cast<int>(j) + 1);
      values.push_back(coefficients[j]);
    }
    glp_set_mat_row(lp, row, static_cast<int>(columns.size()) - 1, columns.data(), values.data());
  }
  int rowOf(Index inequality) const { return equalities + static_cast<int>(inequality) + 1; }
};

LimitSearch::LimitSearch(const LinearLimits& limits) : m_state(std::make_unique<State>()) {
  auto& s = *m_state;
  glp_term_out(GLP_OFF);
  glp_set_obj_dir(s.lp, GLP_MIN);
  glp_add_cols(s.lp, static_cast<int>(limits.lower.size()));
  for (Index j = 0; j < limits.lower.size(); ++j)
    setBounds(j, limits.lower[j], limits.upper[j]);
  s.equalities = static_cast<int>(limits.equality.rows());
  const int rows = s.equalities + static_cast<int>(limits.inequality.rows());
  if (rows > 0) glp_add_rows(s.lp, rows);
  for (int i = 0; i < s.equalities; ++i) {
    s.setRow(i + 1, limits.equality.row(i));
    glp_set_row_bnds(s.lp, i + 1, GLP_FX, limits.equalityRhs[i], limits.equalityRhs[i]);
  }
  for (Index i = 0; i < limits.inequality.rows(); ++i) {
    s.setRow(s.rowOf(i), limits.inequality.row(i));
    setMost(i, limits.inequalityRhs[i]);
  }
  glp_scale_prob(s.lp, GLP_SF_GM | GLP_SF_EQ);
}

LimitSearch::~LimitSearch() = default;

void LimitSearch::setMost(Index inequality, double most) {
  glp_set_row_bnds(m_state->lp, m_state->rowOf(inequality), std::isfinite(most) ? GLP_UP : GLP_FR, 0, most);
}

void LimitSearch::setBounds(Index column, double lower, double upper) {
  const int kind = !std::isfinite(upper) ? GLP_LO : upper <= lower ? GLP_FX : GLP_DB;
  glp_set_col_bnds(m_state->lp, static_cast<int>(column) + 1, kind, lower, upper);
}

std::optional<double> LimitSearch::least(const Eigen::RowVectorXd& direction) {
  for (Index j = 0; j < direction.size(); ++j)
    glp_set_obj_coef(m_state->lp, static_cast<int>(j) + 1, direction[j]);
  glp_smcp control;
  glp_init_smcp(&control);
  control.msg_lev = GLP_MSG_OFF;
  control.it_lim = 5000;
  control.meth = GLP_PRIMAL;
  glp_simplex(m_state->lp, &control);
  if (glp_get_status(m_state->lp) != GLP_OPT) {
    glp_std_basis(m_state->lp);
    return std::nullopt;
  }
  return glp_get_obj_val(m_state->lp);
}

Eigen::VectorXd LimitSearch::x() const {
  Eigen::VectorXd out(glp_get_num_cols(m_state->lp));
  for (Index j = 0; j < out.size(); ++j)
    out[j] = glp_get_col_prim(m_state->lp, static_cast<int>(j) + 1);
  return out;
}

double LimitSearch::reliefOfInequality(Index inequality) const {
  return -glp_get_row_dual(m_state->lp, m_state->rowOf(inequality));
}
double LimitSearch::reliefOfEquality(Index equality) const {
  return -glp_get_row_dual(m_state->lp, static_cast<int>(equality) + 1);
}
double LimitSearch::reliefOfBound(Index column) const {
  return -glp_get_col_dual(m_state->lp, static_cast<int>(column) + 1);
}

} // namespace butte::core
