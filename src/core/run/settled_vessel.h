#pragma once
#include "run/run_plan.h"
#include "stock/stock.h"

#include <vector>

namespace butte::core {

/// A vessel of a run as a tank of its own that has settled at 20 degC: `content` (parallel to the shelf) in
/// `volume`, all placed by hand. A vessel of feed counts its water too.
StockAnswer settledVessel(const RunPlan& plan, std::size_t vessel, const std::vector<Mass>& content,
                          Volume volume);

} // namespace butte::core
