#pragma once
#include "stock/delivered_feed.h"

#include <optional>
#include <vector>

namespace butte::core {

/// What the plants get where the tanks do not give alike: a line that draws too little, or a tank made weaker
/// or stronger than planned.
struct UnevenFeed {
  std::vector<double> gives; ///< per tank, over its due: its draw times its strength
  double pace = 1; ///< of all draws: a controller makes up for what is missing until the meter is right
  DeliveredFeed feed;
};

/// `draws`: each tank's draw over its due; `strengths`: the salts in it over the planned. Missing ones are 1.
/// A weak tank's make-up water counts with its salts (it is a trifle beside them). With a `setpoint` the
/// draws go up or down together until the meter reads it; nothing where they can't.
std::optional<UnevenFeed> unevenFeed(const Delivery& delivery, const std::vector<double>& draws,
                                     const std::vector<double>& strengths,
                                     std::optional<Conductivity> setpoint = std::nullopt);

} // namespace butte::core
