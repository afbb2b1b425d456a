#pragma once
#include "solve/glpk_problem.h"

#include <optional>

namespace butte::core {

/// A linear program that is asked again and again: another direction, one limit moved. Its duals name the
/// limits that hold it. Floating-point simplex (GLPK), scaled.
class LimitSearch : public GlpkProblem {
public:
  explicit LimitSearch(const LinearLimits& limits);

  /// The least value of direction . x; nothing when there is no point or no least one.
  std::optional<double> least(const Eigen::RowVectorXd& direction);
};

} // namespace butte::core
