#pragma once
#include "stock/stock.h"

#include <optional>
#include <vector>

namespace butte::core {

/// How long a tank lasts.
struct TankSupply {
  Volume feedPerFill;
  Volume drawnPerDay;
  std::optional<double> daysPerFill; ///< nothing where no feed is used
  Volume fillForDays;                ///< of stock, for the days asked for
};

/// `feedPerDay` at the tanks' own factors; `strength` for a doser on a setpoint that draws more or less than
/// its due (1: as planned).
std::vector<TankSupply> suppliesOf(const StockAnswer& stock, Volume feedPerDay, double days,
                                   double strength = 1);

/// What a stretch of days takes of each product of the shelf, through the tanks or straight into the feed.
/// `grams` stand for `batch` of feed.
std::vector<Mass> needFor(const std::vector<Mass>& grams, Volume batch, Volume feedPerDay, double days,
                          double strength = 1);

} // namespace butte::core
