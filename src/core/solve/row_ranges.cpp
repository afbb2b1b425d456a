#include "solve/row_ranges.h"

#include "units/constants.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace butte::core {

using Eigen::Index;

namespace {

/// Ends nearer to each other than this, in the rows' own size, are one point: rounding parted them.
bool crossed(double least, double most) {
  return least - most > 1e-12 * (1 + std::abs(least) + std::abs(most));
}

} // namespace

RowRanges::RowRanges(const LinearLimits& limits) {
  for (Index i = 0; i < limits.inequality.rows(); ++i) {
    const bool second = !m_firsts.empty() && m_firsts.back() == i - 1 &&
                        limits.inequality.row(i) == -limits.inequality.row(i - 1);
    if (second) {
      m_ranges.back().least = -limits.inequalityRhs[i];
    } else {
      m_firsts.push_back(i);
      m_ranges.push_back({-constant::infinity, limits.inequalityRhs[i]});
    }
    m_sides.push_back({m_ranges.size() - 1, !second});
  }
}

std::size_t RowRanges::setMost(Index inequality, double most) {
  const auto [row, upper] = sideOf(inequality);
  (upper ? m_ranges[row].most : m_ranges[row].least) = upper ? most : -most;
  return row;
}

bool RowRanges::contradict() const {
  return std::any_of(m_ranges.begin(), m_ranges.end(),
                     [](const Range& range) { return crossed(range.least, range.most); });
}

} // namespace butte::core
