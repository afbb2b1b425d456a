#pragma once
#include "chem/nutrient.h"
#include "solution/solutes.h"

namespace butte::core {

/// The nutrients among dissolved components, in grams per the unit of the solutes' mol (per litre: g/L).
/// Carbonate and organic acids are no nutrients; metals in chelates are not among the components.
NutrientAmounts nutrientsIn(const Solutes& solutes);

} // namespace butte::core
