#pragma once
#include "solve/row_ranges.h"

#include <vector>

struct glp_prob;

namespace butte::core {

/// Linear limits as a problem of the GLPK library, least first, without a cost yet.
class GlpkProblem {
public:
  explicit GlpkProblem(const LinearLimits& limits);
  ~GlpkProblem();
  GlpkProblem(const GlpkProblem&) = delete;
  GlpkProblem& operator=(const GlpkProblem&) = delete;

  glp_prob* get() const { return m_lp; }
  void setCost(const Eigen::VectorXd& cost);
  void setBounds(Eigen::Index column, double lower, double upper);
  /// Moves the right side of an inequality; infinity takes it away.
  void setMost(Eigen::Index inequality, double most);
  /// Two edges of one row that leave nothing between them: there is no point, whatever the solver says.
  bool contradicts() const;

  /// Where it stands after a solve.
  Eigen::VectorXd x() const;
  /// How the least value moves with a row's end (the equalities first, then RowRanges), or with a variable's.
  Eigen::VectorXd rowPrices() const;
  Eigen::VectorXd columnPrices() const;

private:
  void loadMatrix(const LinearLimits& limits);
  void applyEnds(std::size_t row);
  int numberOf(std::size_t row) const { return m_equalities + static_cast<int>(row) + 1; }

  glp_prob* m_lp;
  int m_equalities;
  RowRanges m_ranges;
};

} // namespace butte::core
