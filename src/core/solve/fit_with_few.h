#pragma once
#include <Eigen/Core>
#include <vector>

namespace butte::core {

struct FewColumns {
  std::vector<bool> used;
  bool proven = true; ///< false when the search was cut short
};

/// The best |A x - b| within bounds with at most `most` columns above their lower bound of 0; columns with a
/// lower bound above 0 always count. Branch and bound on the bounded fit, begun from backward elimination;
/// ends after `mostNodes` fits.
FewColumns fitWithFew(const Eigen::MatrixXd& a, const Eigen::VectorXd& b, const Eigen::VectorXd& lower,
                      const Eigen::VectorXd& upper, int most, int mostNodes = 4000);

} // namespace butte::core
