#pragma once
#include "bench/weigh_plan.h"
#include "solve/solve.h"
#include "stock/stock.h"

#include <vector>

namespace butte::core {

/// The weights of all tanks in the steps of the scales, chosen together.
struct RoundedTanks {
  std::vector<std::vector<Mass>> grams; ///< per tank, parallel to the shelf
  double misfit = 0;                    ///< sum of weighted squares of what the feed is moved by
  double oneByOne = 0;                  ///< the same with every weight rounded by itself
};

/// What reaches the plants is the sum of the tanks: rounding one up lets another go down, across tanks too.
/// Only weights of which half a step is worth telling (more than 0.1 %) are moved by more than to the nearest
/// step. Needs at least one scale.
RoundedTanks roundTanksTogether(const SolveRequest& request, const std::vector<Mass>& grams,
                                const StockAnswer& stock, const std::vector<Scale>& scales);

} // namespace butte::core
