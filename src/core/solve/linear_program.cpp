#include "solve/linear_program.h"

#include <cmath>
#include <glpk.h>
#include <memory>
#include <vector>

namespace butte::core {
namespace {

struct DeleteProblem {
  void operator()(glp_prob* p) const { glp_delete_prob(p); }
};

void setRow(glp_prob* lp, int row, const Eigen::RowVectorXd& coefficients) {
  std::vector<int> columns{0};
  std::vector<double> values{0};
  for (Eigen::Index j = 0; j < coefficients.size(); ++j) {
    if (coefficients[j] == 0) continue;
    columns.push_back(static_cast<int>(j) + 1);
    values.push_back(coefficients[j]);
  }
  glp_set_mat_row(lp, row, static_cast<int>(columns.size()) - 1, columns.data(), values.data());
}

/// Whether x keeps every limit as nearly as doubles can say.
bool keepsAll(const LinearLimits& limits, const Eigen::VectorXd& x) {
  const auto scale = [&](const Eigen::RowVectorXd& row) {
    return 1e-12 * (row.cwiseAbs().dot(x.cwiseAbs()) + 1);
  };
  for (Eigen::Index j = 0; j < x.size(); ++j) {
    if (x[j] < limits.lower[j] - 1e-12 || x[j] > limits.upper[j] + 1e-12) return false;
  }
  for (Eigen::Index i = 0; i < limits.equality.rows(); ++i) {
    const auto row = limits.equality.row(i);
    if (std::abs(row.dot(x) - limits.equalityRhs[i]) > scale(row)) return false;
  }
  for (Eigen::Index i = 0; i < limits.inequality.rows(); ++i) {
    const auto row = limits.inequality.row(i);
    if (row.dot(x) > limits.inequalityRhs[i] + scale(row)) return false;
  }
  return true;
}

} // namespace

std::optional<Eigen::VectorXd> linearProgram(const Eigen::VectorXd& cost, const LinearLimits& limits,
                                             Refusal refusal) {
  const int n = static_cast<int>(cost.size());
  const int equalities = static_cast<int>(limits.equality.rows());
  const int inequalities = static_cast<int>(limits.inequality.rows());
  if (n == 0) return Eigen::VectorXd();
  const std::unique_ptr<glp_prob, DeleteProblem> lp(glp_create_prob());
  glp_term_out(GLP_OFF);
  glp_set_obj_dir(lp.get(), GLP_MIN);
  glp_add_cols(lp.get(), n);
  for (int j = 0; j < n; ++j) {
    const double low = limits.lower[j], high = limits.upper[j];
    const int kind = !std::isfinite(high) ? GLP_LO : high <= low ? GLP_FX : GLP_DB;
    glp_set_col_bnds(lp.get(), j + 1, kind, low, high);
    glp_set_obj_coef(lp.get(), j + 1, cost[j]);
  }
  if (equalities + inequalities > 0) glp_add_rows(lp.get(), equalities + inequalities);
  for (int i = 0; i < equalities; ++i) {
    setRow(lp.get(), i + 1, limits.equality.row(i));
    glp_set_row_bnds(lp.get(), i + 1, GLP_FX, limits.equalityRhs[i], limits.equalityRhs[i]);
  }
  for (int i = 0; i < inequalities; ++i) {
    setRow(lp.get(), equalities + i + 1, limits.inequality.row(i));
    glp_set_row_bnds(lp.get(), equalities + i + 1, GLP_UP, 0, limits.inequalityRhs[i]);
  }
  glp_smcp control;
  glp_init_smcp(&control);
  control.msg_lev = GLP_MSG_OFF;
  control.it_lim = 10000;
  control.tol_bnd = control.tol_dj = 1e-9;
  const auto point = [&] {
    Eigen::VectorXd x(n);
    for (int j = 0; j < n; ++j)
      x[j] = std::clamp(glp_get_col_prim(lp.get(), j + 1), limits.lower[j], limits.upper[j]);
    return x;
  };
  glp_simplex(lp.get(), &control);
  if (glp_get_status(lp.get()) == GLP_OPT) {
    Eigen::VectorXd x = point();
    if (keepsAll(limits, x)) return x;
  } else if (refusal == Refusal::Quick) {
    return std::nullopt;
  }
  // Doubles left a doubt: exact arithmetic settles it, from where the simplex ended.
  glp_exact(lp.get(), &control);
  if (glp_get_status(lp.get()) != GLP_OPT) return std::nullopt;
  return point();
}

void releaseSolverMemory() {
  glp_free_env();
}

} // namespace butte::core
