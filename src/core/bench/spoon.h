#pragma once
#include "product/shelf_product.h"
#include "units/quantity.h"

namespace butte::core {

/// The smallest of a set of measuring spoons, in US teaspoons (common practice).
inline constexpr double finestSpoon = 1.0 / 8;

/// What a level teaspoon of a product holds, and how far it may be off.
struct Spoonful {
  Mass perTeaspoon;        ///< US teaspoon of 4.929 mL
  double errorPercent = 0; ///< of one filling against the next
  bool weighed = false;    ///< the grower weighed ten of them; else a usual salt's bulk density
};

/// A liquid's by its density. A dry product whose spoon was weighed keeps its own; any other is taken for a
/// salt of 1 kg/L in bulk, right to a third, since salts and blends lie between 0.7 and 1.3 kg/L by grain and
/// hydrate (common practice).
Spoonful levelTeaspoon(const ShelfProduct& product);

/// A weight as whole eighths of a teaspoon, one at least.
struct SpoonMeasure {
  double teaspoons = 0;
  Mass mass;               ///< what these hold
  double errorPercent = 0; ///< at worst, of the filling and of the rounding, against the exact weight
};
SpoonMeasure measuredBySpoon(Mass exact, const Spoonful& spoon);

} // namespace butte::core
