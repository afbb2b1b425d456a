#pragma once
#include "shelf/shelf_account.h"

namespace butte::core {

inline constexpr std::int64_t secondsPerWeek = 7 * 86400;
inline constexpr int weeksPerYear = 52; ///< the same days of the week

/// What is used of a product in a week, as the last weeks had it.
struct UseRate {
  Mass perWeek;
  Mass low, high; ///< nine in ten weeks lie between, as far as the weeks tell
  int weeks = 0;  ///< that it was reckoned from; 0: nothing was used
};

/// The last eight whole weeks before `nowSeconds`, or as many as there are since the first use; weeks without
/// a use count as none (common practice: two months tell a present use).
inline constexpr int usualWeeks = 8;
UseRate useRateOf(const std::string& product, const std::vector<ShelfEvent>& events, std::int64_t nowSeconds,
                  int mostWeeks = usualWeeks);

/// The same weeks 52 weeks ago: from `nowSeconds` on, so many weeks ahead. Nothing where nothing was used
/// then.
std::optional<Mass> usedAYearAgo(const std::string& product, const std::vector<ShelfEvent>& events,
                                 std::int64_t nowSeconds, int weeksAhead);

/// For how many weeks that does; nothing where none of it is used.
std::optional<double> weeksLeft(Mass left, const UseRate& rate);

} // namespace butte::core
