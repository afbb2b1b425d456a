#pragma once
#include "chem/ions.h"
#include "chem/nutrient.h"
#include "units/quantity.h"

namespace butte::core {

/// Conductivity at 25 degC of a solution with these ions and metal traces.
///
/// Method, for now (docs/chemistry.md): Kohlrausch's sum of limiting ionic conductivities, each lowered by
/// gamma^a with gamma from the Davies equation and a = 0.6/sqrt(|z|) up to an ionic strength of 0.36|z|,
/// sqrt(I)/|z| above (Appelo 2010, from memory), after pairing of divalent metals with sulfate. Good to about
/// 2 % for feeds; the full equilibrium engine will replace it behind this one function.
Conductivity estimateConductivity(const IonBalance& ions, const NutrientAmounts& milligramsPerLitre);

/// The growers' rule beside it: cations in meq/L divided by 10 (common practice).
Conductivity conductivityByRule(const IonBalance& ions);

} // namespace butte::core
