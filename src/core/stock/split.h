#pragma once
#include "stock/stock.h"

namespace butte::core {

/// Share of each product per tank (products x tanks); an all-zero row is a product that is not placed.
/// Rules (common practice): the calcium side in the first tank, sulfate and phosphate in the second; what may
/// stand in either goes where it levels the tanks' weights, and the heaviest of it is divided between them.
/// Acids, bases and silicate go only where a hand puts them.
std::vector<std::vector<double>> splitByRules(const std::vector<ShelfProduct>& shelf,
                                              const std::vector<Concentration>& feed, const StockPlan& plan);

} // namespace butte::core
