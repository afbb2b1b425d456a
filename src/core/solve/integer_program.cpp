#include "solve/integer_program.h"

#include "solve/glpk_problem.h"

#include <glpk.h>

namespace butte::core {
namespace {

using Eigen::Index;

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
                                           const std::vector<Index>& zeroOrOne,
                                           const std::vector<Index>& whole, int mostNodes) {
  GlpkProblem problem(limits);
  if (problem.contradicts()) return std::nullopt;
  problem.setCost(cost);
  glp_prob* const lp = problem.get();
  for (const auto j : zeroOrOne)
    glp_set_col_kind(lp, static_cast<int>(j) + 1, GLP_BV);
  for (const auto j : whole)
    glp_set_col_kind(lp, static_cast<int>(j) + 1, GLP_IV);
  glp_scale_prob(lp, GLP_SF_GM | GLP_SF_EQ);
  glp_smcp simplex;
  glp_init_smcp(&simplex);
  simplex.msg_lev = GLP_MSG_OFF;
  simplex.it_lim = 20000;
  glp_simplex(lp, &simplex);
  if (glp_get_status(lp) != GLP_OPT) return std::nullopt;
  Budget budget{mostNodes, false};
  glp_iocp control;
  glp_init_iocp(&control);
  control.msg_lev = GLP_MSG_OFF;
  control.mir_cuts = control.gmi_cuts = GLP_ON;
  control.cb_func = spend;
  control.cb_info = &budget;
  glp_intopt(lp, &control);
  const int status = glp_mip_status(lp);
  if (status != GLP_OPT && status != GLP_FEAS) return std::nullopt;
  IntegerPoint point;
  point.proven = status == GLP_OPT && !budget.spent;
  point.x.resize(cost.size());
  for (Index j = 0; j < cost.size(); ++j)
    point.x[j] = glp_mip_col_val(lp, static_cast<int>(j) + 1);
  return point;
}

} // namespace butte::core
