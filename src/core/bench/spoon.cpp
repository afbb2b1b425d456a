#include "bench/spoon.h"

#include <algorithm>
#include <cmath>

namespace butte::core {

Spoonful levelTeaspoon(const ShelfProduct& product) {
  // A liquid fills its spoon to the brim, give or take what clings to it (common practice).
  constexpr double brimPercent = 5;
  if (product.liquid)
    return {Mass::fromKilograms(product.densityKgPerL.value_or(1) * factor::litresPerUsTeaspoon), brimPercent,
            product.densityKgPerL.has_value()};
  // Levelled by one hand, fill by fill (common practice).
  constexpr double fillPercent = 8;
  if (product.levelTeaspoon) return {*product.levelTeaspoon, fillPercent, true};
  constexpr double bulkKgPerLitre = 1, bulkPercent = 30;
  return {Mass::fromKilograms(bulkKgPerLitre * factor::litresPerUsTeaspoon), bulkPercent, false};
}

SpoonMeasure measuredBySpoon(Mass exact, const Spoonful& spoon) {
  const double teaspoons = exact / spoon.perTeaspoon;
  SpoonMeasure out;
  out.teaspoons = std::max(1.0, std::round(teaspoons / finestSpoon)) * finestSpoon;
  out.mass = spoon.perTeaspoon * out.teaspoons;
  const double rounding = std::abs(out.mass / exact - 1);
  out.errorPercent = 100 * rounding + spoon.errorPercent * (out.mass / exact);
  return out;
}

} // namespace butte::core
