#pragma once
#include "bench/weigh_plan.h"
#include "stock/stock.h"

namespace butte::core {

/// One salt of a pre-stock.
struct PreStockItem {
  std::size_t product = 0; ///< index into the shelf
  Mass perFill;            ///< what the tank wants
  Mass toWeigh;            ///< for the whole bottle
  std::size_t scale = 0;   ///< index into the scales
  double errorPercent = 0; ///< of weighing it for the bottle
};

/// A bottle that holds for many fills of a tank what the scale can't weigh for one.
struct PreStock {
  std::size_t tank = 0; ///< index into the answer's tanks
  std::vector<PreStockItem> items;
  int fills = 1;
  Volume perFill; ///< of the bottle into the tank
  Volume bottle;
  bool clear = true;           ///< all dissolves at the coldest
  bool solubilityKnown = true; ///< of all that is in it
};

/// For each tank the salts that no scale weighs to 2 % (common practice), made together: so many fills that
/// every weight is good to 2 %, in the smallest usual measure per fill (10 mL and up) in which all stays
/// clear by a quarter. None where even a thousand fills would not do: then a finer scale is the answer.
std::vector<PreStock> preStocks(const std::vector<ShelfProduct>& shelf, const std::vector<TankContent>& tanks,
                                const std::vector<Scale>& scales, Temperature coldest);

} // namespace butte::core
