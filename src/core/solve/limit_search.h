#pragma once
#include "solve/bounded_simplex.h"
#include "solve/row_ranges.h"

#include <optional>

namespace butte::core {

/// A linear program that is asked again and again: another direction, one limit moved. Its duals name the
/// limits that hold it. From a point that is known to keep the limits; where that search is in doubt, the
/// library's (GLPK) decides.
class LimitSearch {
public:
  LimitSearch(LinearLimits limits, const Eigen::VectorXd& inside);

  /// Moves the right side of an inequality; infinity takes it away.
  void setMost(Eigen::Index inequality, double most);
  /// The least value of direction . x; nothing when there is no point or no least one.
  std::optional<double> least(const Eigen::RowVectorXd& direction);

  /// How much the least value would fall for each unit that a limit gives (0: does not hold it).
  double reliefOfInequality(Eigen::Index inequality) const;
  double reliefOfEquality(Eigen::Index equality) const; ///< signed
  double reliefOfBound(Eigen::Index column) const;      ///< negative: the lower bound holds it

private:
  std::optional<double> leastByLibrary(const Eigen::RowVectorXd& direction);

  LinearLimits m_limits;
  RowRanges m_ranges;
  BoundedSimplex m_simplex;
  Eigen::VectorXd m_rowPrices; ///< equalities first, then the ranges
  Eigen::VectorXd m_columnPrices;
};

} // namespace butte::core
