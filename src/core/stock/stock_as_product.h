#pragma once
#include "product/product.h"
#include "stock/stock.h"

#include <vector>

namespace butte::core {

/// A made stock as something that can be bought: a liquid with a label and a density.
struct StockLabel {
  std::vector<LabelRow> percentByMass; ///< elements and forms of nitrogen; what is below 0.0001 % is left out
  double densityKgPerLitre = 1;
};

/// The label that a tank's contents would carry, what fell out taken off. With it an existing stock goes onto
/// the shelf like any two-part liquid: dosed in mL, combined with salts, checked.
StockLabel stockAsProduct(const std::vector<ShelfProduct>& shelf, const TankContent& content);

} // namespace butte::core
