#pragma once
#include "stock/stock.h"

namespace butte::core {

/// What a tank would look like at one temperature.
struct ColdNight {
  Temperature temperature;
  std::vector<Fallen> falls;        ///< what would lie on the floor, the most first
  std::optional<double> maxFactor;  ///< the ceiling of what is known there
  std::vector<std::size_t> unknown; ///< products whose solubility is not known there
};

/// A tank through the temperatures asked for, everything else as planned.
std::vector<ColdNight> coldNights(const std::vector<ShelfProduct>& shelf, const TankContent& content,
                                  const std::vector<Temperature>& temperatures);

} // namespace butte::core
