#pragma once
#include "solve/linear_model.h"

#include <memory>
#include <optional>

namespace butte::core {

/// A linear program that is asked again and again: another direction, one limit moved. Names the limits that
/// hold it by its duals. Floating-point simplex (GLPK), scaled.
class LimitSearch {
public:
  explicit LimitSearch(const LinearLimits& limits);
  ~LimitSearch();
  LimitSearch(const LimitSearch&) = delete;
  LimitSearch& operator=(const LimitSearch&) = delete;

  /// Moves the right side of an inequality; infinity takes it away.
  void setMost(Eigen::Index inequality, double most);
  void setBounds(Eigen::Index column, double lower, double upper);

  /// The least value of direction . x; nothing when there is no point or no least one.
  std::optional<double> least(const Eigen::RowVectorXd& direction);

  /// After least(): where it stands, and how much the least value would fall for each unit that a limit
  /// gives (0: does not hold it).
  Eigen::VectorXd x() const;
  double reliefOfInequality(Eigen::Index inequality) const;
  double reliefOfEquality(Eigen::Index equality) const; ///< signed
  double reliefOfBound(Eigen::Index column) const;      ///< negative: the lower bound holds it

private:
  struct State;
  std::unique_ptr<State> m_state;
};

} // namespace butte::core
