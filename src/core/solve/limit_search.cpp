#include "solve/limit_search.h"

#include <glpk.h>

namespace butte::core {

LimitSearch::LimitSearch(const LinearLimits& limits) : GlpkProblem(limits) {
  glp_scale_prob(get(), GLP_SF_GM | GLP_SF_EQ);
}

std::optional<double> LimitSearch::least(const Eigen::RowVectorXd& direction) {
  if (contradicts()) return std::nullopt;
  setCost(direction);
  glp_smcp control;
  glp_init_smcp(&control);
  control.msg_lev = GLP_MSG_OFF;
  control.it_lim = 5000;
  control.meth = GLP_PRIMAL;
  glp_simplex(get(), &control);
  if (glp_get_status(get()) != GLP_OPT) {
    glp_std_basis(get());
    return std::nullopt;
  }
  return glp_get_obj_val(get());
}

} // namespace butte::core
