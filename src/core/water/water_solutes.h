#pragma once
#include "solution/solutes.h"
#include "units/quantity.h"
#include "water/water.h"

#include <optional>

namespace butte::core {

/// A source water in solution, per litre, and what had to be assumed of its carbonate.
struct WaterSolutes {
  Solutes perLitre;
  /// False where alkalinity or composition is unknown: then no pH can be told from it.
  bool phFollows = true;
  /// The report's pH and alkalinity can't both be right: no carbonate fits. The alkalinity is used.
  bool phContradicts = false;
};

/// The report's temperature, held to the 0 to 45 degC that the chemistry knows; 20 degC where it says none.
Temperature temperatureOf(const Water& water);

/// The carbonate is what makes the reported alkalinity stand at the reported pH (at the reported temperature,
/// else 20 degC); without a pH, what plain bicarbonate would hold. What the report leaves unbalanced stays an
/// ion without a name: the pH then still is the one that was read.
WaterSolutes waterSolutes(const Water& water);

/// Conductivity at 25 degC of what the report states, mS/cm; nothing where the chemistry finds none.
std::optional<double> computedConductivityMsPerCm(const Water& water);

} // namespace butte::core
