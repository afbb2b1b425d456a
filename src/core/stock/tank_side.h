#pragma once
#include "product/shelf_product.h"
#include "stock/stock.h"

#include <vector>

namespace butte::core {

/// Which side of a set of stocks a tank is, by what is in it, whatever its letter.
enum class TankSide {
  Empty,
  Acid,
  Silicate,
  SilicateAndMore,
  Traces,
  AllInOne, ///< calcium beside sulfate or phosphate
  Calcium,
  SulfateAndPhosphate,
  Sulfate,
  Phosphate,
  Base,
  Neutral ///< nothing that the other side minds
};

TankSide tankSide(const std::vector<ShelfProduct>& shelf, const TankContent& content);

/// What a concentrate of this side must never meet as a concentrate (common practice).
enum class KeepFrom { Nothing, SulfateOrPhosphate, Calcium, AnyOther };
KeepFrom keepFrom(TankSide side);

} // namespace butte::core
