#pragma once
#include "shelf/shelf_lot.h"

#include <cstddef>
#include <map>

namespace butte::core {

/// What became of a lot. bought + corrected = left + used + wasted.
struct LotState {
  Mass left, used, wasted;
  Mass corrected; ///< what counts found above what the book knew; below zero: missing
  std::optional<std::int64_t> lastUsedSeconds;
};

/// So much of one lot went into a use.
struct LotShare {
  std::size_t lot = 0; ///< index into the lots
  Mass mass;
};

/// Where a use came from. mass = the shares together + notCovered.
struct UseAccount {
  std::size_t event = 0; ///< index into the events as given
  std::vector<LotShare> from;
  Mass notCovered;             ///< no lot that had come by then held it
  bool beforeFirstLot = false; ///< the shelf was not kept yet: nothing is missing
};

struct ShelfAccount {
  std::vector<LotState> lots; ///< parallel to the lots
  std::vector<UseAccount> uses;
  Mass leftOf(const std::vector<ShelfLot>& given, const std::string& product) const;
};

/// Runs through the events in the order of time. A use takes from the lots that it names, what is missing
/// there and what names none from the oldest delivery that had come by then (first in, first out); a count
/// says what is left; what is wasted above what was left corrects the lot. No lot ever holds less than
/// nothing.
ShelfAccount shelfAccount(const std::vector<ShelfLot>& lots, const std::vector<ShelfEvent>& events);

/// What a use cost by the lots that it came from.
struct UseCost {
  std::vector<Money> money; ///< by currency, in the order of the alphabet
  Mass unpriced;            ///< of it no price is known
};
UseCost costOf(const UseAccount& use, const std::vector<ShelfLot>& lots);
/// Sums up, currency by currency.
void addCost(UseCost& total, const UseCost& more);

} // namespace butte::core
