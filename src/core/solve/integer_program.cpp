#include "solve/integer_program.h"

#include <cmath>
#include <glpk.h>
#include <memory>

namespace butte::core {
namespace {

using Eigen::Index;

struct DeleteProblem {
  void operator()(glp_prob* p) const { glp_delete_prob(p); }
};

void setRow(glp_prob* lp, int row, const Eigen::RowVectorXd& coefficients) {
  std::vector<int> columns{0};
  std::vector<double> values{0};
  for (Index j = 0; j < coefficients.size(); ++j) {
    if (coefficients[j] == 0) continue;
    columns.push_back(static_cast<int>(j) + 1);
    values.push_back(coefficients[j]);
  }
  glp_set_mat_row(lp, row, static_cast<int>(columns.size()) - 1, columns.data(), values.data());
}

void fill(glp_prob* lp, const Eigen::VectorXd& cost, const LinearLimits& limits) {
  glp_set_obj_dir(lp, GLP_MIN);
  glp_add_cols(lp, static_cast<int>(cost.size()));
  for (Index j = 0; j < cost.size(); ++j) {
    const double low = limits.lower[j], high = limits.upper[j];
    const int kind = !std::isfinite(high) ? GLP_LO : high <= low ? GLP_FX : GLP_DB;
    glp_set_col_bnds(lp, static_cast<int>(j) + 1, kind, low, high);
    glp_set_obj_coef(lp, static_cast<int>(j) + 1, cost[j]);
  }
  const int equalities = static_cast<int>(limits.equality.rows());
  const int rows = equalities + static_cast<int>(limits.inequality.rows());
  if (rows > 0) glp_add_rows(lp, rows);
  for (int i = 0; i < rows; ++i) {
    const bool equal = i < equalities;
    setRow(lp, i + 1, equal ? limits.equality.row(i) : limits.inequality.row(i - equalities));
    const double rhs = equal ? limits.equalityRhs[i] : limits.inequalityRhs[i - equalities];
    glp_set_row_bnds(lp, i + 1, equal ? GLP_FX : GLP_UP, rhs, rhs);
  }
}

struct Budget {
  int left = 0;
  bool spent = false;
};

void spend(glp_tree* tree, void* info) {
  auto* budget = static_cast<Budget*>(info);
  if (glp_ios_reason(tree) != GLP_ISELECT || budget->left-- > 0) return;
  budget->spent = true;
  glp_ios_terminate(tree);
}

} // namespace

std::optional<IntegerPoint> integerProgram(const Eigen::VectorXd& cost, const LinearLimits& limits,
                                           const std::vector<Index>& zeroOrOne, int mostNodes) {
  const std::unique_ptr<glp_prob, DeleteProblem> lp(glp_create_prob());
  glp_term_out(GLP_OFF);
  fill(lp.get(), cost, limits);
  for (const auto j : zeroOrOne)
    glp_set_col_kind(lp.get(), static_cast<int>(j) + 1, GLP_BV);
  glp_scale_prob(lp.get(), GLP_SF_GM | GLP_SF_EQ);
  glp_smcp simplex;
  glp_init_smcp(&simplex);
  simplex.msg_lev = GLP_MSG_OFF;
  simplex.it_lim = 20000;
  glp_simplex(lp.get(), &simplex);
  if (glp_get_status(lp.get()) != GLP_OPT) return std::nullopt;
  Budget budget{mostNodes, false};
  glp_iocp control;
  glp_init_iocp(&control);
  control.msg_lev = GLP_MSG_OFF;
  control.mir_cuts = control.gmi_cuts = GLP_ON;
  control.cb_func = spend;
  control.cb_info = &budget;
  glp_intopt(lp.get(), &control);
  const int status = glp_mip_status(lp.get());
  if (status != GLP_OPT && status != GLP_FEAS) return std::nullopt;
  IntegerPoint point;
  point.proven = status == GLP_OPT && !budget.spent;
  point.x.resize(cost.size());
  for (Index j = 0; j < cost.size(); ++j)
    point.x[j] = glp_mip_col_val(lp.get(), static_cast<int>(j) + 1);
  return point;
}

} // namespace butte::core
