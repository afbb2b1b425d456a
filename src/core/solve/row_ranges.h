#pragma once
#include "solve/constrained_least_squares.h"

#include <vector>

namespace butte::core {

/// The inequalities of limits as rows with two ends.
///
/// Two neighbouring inequalities that are each other's negative (the edges of a band) become one row: half
/// the rows make a much quicker simplex. Callers go on counting inequalities as they gave them.
class RowRanges {
public:
  struct Range { ///< least <= row . x <= most
    double least, most;
  };
  /// An inequality's place: the upper or the lower end of a row.
  struct Side {
    std::size_t row;
    bool upper;
  };

  explicit RowRanges(const LinearLimits& limits);

  std::size_t size() const { return m_ranges.size(); }
  const Range& operator[](std::size_t row) const { return m_ranges[row]; }
  /// The inequality that a row is written after.
  Eigen::Index firstOf(std::size_t row) const { return m_firsts[row]; }
  Side sideOf(Eigen::Index inequality) const { return m_sides[static_cast<std::size_t>(inequality)]; }
  /// Moves the right side of an inequality; infinity takes it away. Returns its row.
  std::size_t setMost(Eigen::Index inequality, double most);
  /// Two ends of one row that leave nothing between them: there is no point, whatever a solver says.
  bool contradict() const;

private:
  std::vector<Range> m_ranges;
  std::vector<Eigen::Index> m_firsts; ///< parallel to m_ranges
  std::vector<Side> m_sides;          ///< of each inequality
};

} // namespace butte::core
