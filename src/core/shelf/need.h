#pragma once
#include "shelf/use_rate.h"

namespace butte::core {

/// What is known of the use ahead.
enum class NeedFrom {
  Nothing,  ///< it is not used
  Present,  ///< as the last weeks had it
  LastYear, ///< as the same weeks last year had it, times what this year's last weeks are of last year's
  Plan      ///< feed planned by the day, and what else is used beside
};

/// Of one week; nine in ten lie between low and high.
struct WeekNeed {
  Mass mean, low, high;
};

struct Need {
  NeedFrom from = NeedFrom::Nothing;
  std::vector<WeekNeed> weeks;
  Mass mean, low, high; ///< of all the weeks together: their bands do not simply add up
};

/// The use ahead, week by week from `nowSeconds` on. `events` are the uses that no plan stands for;
/// `plannedPerWeek` (none, or one for each week) is what planned feed takes.
Need needAhead(const std::string& product, const std::vector<ShelfEvent>& events, std::int64_t nowSeconds,
               int weeks, const std::vector<Mass>& plannedPerWeek = {});

/// Of planned feed: weather moves the water use of a week by so much to either side, nine weeks in ten
/// (common practice).
inline constexpr double plannedBandShare = 0.2;
/// Last year's weeks are scaled by what this year is of it, within these (else nothing is learnt from them).
inline constexpr double leastYearRatio = 0.2, mostYearRatio = 5;
inline constexpr int mostWeeksAhead = 104;

/// When it runs out: the weeks from now till the mean need has used up what is left; nothing where it does
/// longer than the need was worked out for.
std::optional<double> weeksUntilOut(Mass left, const Need& need);

} // namespace butte::core
