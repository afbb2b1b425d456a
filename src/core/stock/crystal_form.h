#pragma once
#include "product/product.h"

namespace butte::core {

/// The formula of what would crystallise out of a strong solution of this product: its own, or for a product
/// known by its label alone that of the catalogue's salt which holds the same nutrients (the common calcium
/// nitrate of the bags is 5Ca(NO3)2·NH4NO3·10H2O). Null where neither is known.
const ChemicalFormula* crystalFormOf(const Composition& product);

/// Grams of water-free substance in a gram of the product: a label says nothing of the water in its crystals,
/// their form does.
double waterFreeFractionOf(const Composition& product);

} // namespace butte::core
