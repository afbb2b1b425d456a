#include "solve/linear_program.h"

#include <cmath>
#include <glpk.h>

namespace butte::core {
namespace {

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
  if (cost.size() == 0) return Eigen::VectorXd();
  GlpkProblem problem(limits);
  return linearProgramFrom(problem, cost, limits, refusal);
}

std::optional<Eigen::VectorXd> linearProgramFrom(GlpkProblem& problem, const Eigen::VectorXd& cost,
                                                 const LinearLimits& limits, Refusal refusal) {
  if (problem.contradicts()) return std::nullopt;
  problem.setCost(cost);
  glp_smcp control;
  glp_init_smcp(&control);
  control.msg_lev = GLP_MSG_OFF;
  control.it_lim = 10000;
  control.tol_bnd = control.tol_dj = 1e-9;
  const auto point = [&]() -> Eigen::VectorXd {
    return problem.x().cwiseMax(limits.lower).cwiseMin(limits.upper);
  };
  glp_simplex(problem.get(), &control);
  if (glp_get_status(problem.get()) == GLP_OPT) {
    Eigen::VectorXd x = point();
    if (keepsAll(limits, x)) return x;
  } else if (refusal == Refusal::Quick) {
    return std::nullopt;
  }
  // Doubles left a doubt: exact arithmetic settles it, from where the simplex ended.
  glp_exact(problem.get(), &control);
  if (glp_get_status(problem.get()) != GLP_OPT) return std::nullopt;
  return point();
}

} // namespace butte::core
