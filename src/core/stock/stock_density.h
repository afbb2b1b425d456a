#pragma once
#include "formula/shelf.h"
#include "units/quantity.h"

#include <vector>

namespace butte::core {

/// Kilograms of water in one litre of a stock holding `concentration` of each product, hydrate water
/// included.
///
/// A litre of stock less the volume that its dissolved ions take up: apparent molar volumes at infinite
/// dilution (Millero, 1972, from memory) with the Debye-Hueckel limiting slope; organic matter and what is
/// not known by its formula at 0.6 mL/g (common practice, cautious). Never below 0.
double waterKgPerLitre(const std::vector<ShelfProduct>& shelf,
                       const std::vector<Concentration>& concentration);

} // namespace butte::core
