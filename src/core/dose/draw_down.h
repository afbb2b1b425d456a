#pragma once
#include "base/result.h"
#include "units/quantity.h"

#include <optional>
#include <vector>

namespace butte::core {

/// What the levels of the tanks say of their lines.
struct DrawDown {
  std::vector<double> ofDue;       ///< each tank's draw over its due, parallel to the tanks
  bool dueKnown = false;           ///< the feed was measured; else the fullest draw counts as 1
  std::optional<std::size_t> weak; ///< the tank that gives clearly less than the others
  bool shut = false;               ///< that one gives next to nothing
};

/// `drawn` from each tank of these factors; `feed` made meanwhile, where a meter tells. Draws that differ by
/// more than `alikePercent` of the fullest are called unequal (common practice: 5 %). Errors: OutOfRange
/// ("drawn"), MissingKey with fewer than two tanks.
Result<DrawDown> judgeDrawDown(const std::vector<Volume>& drawn, const std::vector<double>& factors,
                               std::optional<Volume> feed, double alikePercent = 5);

} // namespace butte::core
