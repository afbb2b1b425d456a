#pragma once
#include "base/result.h"
#include "product/product.h"
#include "water/water.h"

#include <map>
#include <optional>

namespace butte::core {

/// A reverse osmosis plant as its owner knows it.
struct ReverseOsmosis {
  double rejectionPercent = 97;           ///< of the whole plant, as an EC pen before and behind shows it
  double recoveryPercent = 50;            ///< permeate per feed; the rest is waste
  std::map<Nutrient, double> rejectionOf; ///< percent, where the maker says another figure for one ion
};

/// Water through a membrane. Each ion passes more or less than sodium does (usual thin-film membranes, from
/// memory); bicarbonate closes the charge, and dissolved carbon dioxide passes whole, which is why permeate
/// reads sour.
struct Permeate {
  Water water;
  Water concentrate;              ///< what goes to waste
  double wasteLitresPerLitre = 0; ///< per litre of permeate
  double passedOf(const Water& feed, Nutrient n) const;
};
Permeate throughMembrane(const Water& feed, const ReverseOsmosis& plant);
/// Share of an ion that passes, 0 to 1.
double passage(Nutrient nutrient, const ReverseOsmosis& plant);

/// Ion exchange: calcium and magnesium down to a rest of hardness, sodium in their place.
Water softened(const Water& feed, double hardnessLeftMeqPerL);

/// Acid (or base) into a water before use, closed to the air.
struct Acidified {
  Water water;
  double gramsPerLitre = 0; ///< of the product as sold
};
/// Down to this alkalinity. Errors: NotDeterminable (the water's alkalinity is not known), CannotReach (it
/// stands lower already, or this product can't), and those of equilibrate().
Result<Acidified> acidified(const Water& feed, const Composition& product, double alkalinityLeftMeqPerL);

} // namespace butte::core
