#pragma once
#include "solve/constrained_least_squares.h"

#include <vector>

struct glp_prob;

namespace butte::core {

/// Linear limits as a problem of the GLPK library, least first, without a cost yet.
///
/// Two neighbouring inequalities that are each other's negative (the edges of a band) become one row with two
/// bounds: half the rows make a much quicker simplex. Callers go on counting inequalities as they gave them.
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
  /// How much the least value would fall for each unit that a limit gives (0: does not hold it).
  double reliefOfInequality(Eigen::Index inequality) const;
  double reliefOfEquality(Eigen::Index equality) const; ///< signed
  double reliefOfBound(Eigen::Index column) const;      ///< negative: the lower bound holds it

private:
  struct Row { ///< least <= row . x <= most
    double least, most;
  };
  struct Side { ///< an inequality's place: the upper or the lower edge of a row
    std::size_t row;
    bool upper;
  };
  void loadMatrix(const LinearLimits& limits, const std::vector<Eigen::Index>& inequalities);
  void applyBounds(std::size_t row);
  int numberOf(std::size_t row) const { return m_equalities + static_cast<int>(row) + 1; }

  glp_prob* m_lp;
  int m_equalities;
  std::vector<Row> m_rows;
  std::vector<Side> m_sides; ///< of each inequality
};

} // namespace butte::core
