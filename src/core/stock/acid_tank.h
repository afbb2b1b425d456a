#pragma once
#include "formula/mix.h"
#include "stock/stock.h"

namespace butte::core {

/// The acid in a tank, as it is made and what it does.
struct AcidTank {
  std::size_t tank = 0;    ///< index into the answer's tanks
  std::size_t product = 0; ///< index into the shelf
  Mass mass;
  std::optional<Volume> volume; ///< of the bottle's liquid
  double strengthPercent = 0;   ///< of pure acid by mass, in the finished tank
  /// How much the tank warms when the acid goes into its water at once; nothing: not known.
  std::optional<double> warmsByKelvin;
  /// What the blended water comes to with this much of it and nothing else, closed to the air; nothing: not
  /// known.
  std::optional<double> waterPh;
};

/// The tanks for acid that hold some. `water`: the source water by itself.
std::vector<AcidTank> acidTanks(const std::vector<ShelfProduct>& shelf, const StockAnswer& stock,
                                const MixResult& water);

} // namespace butte::core
