#pragma once
#include "chem/ions.h"
#include "solution/equilibrium.h"
#include "solution/solutes.h"
#include "units/quantity.h"

namespace butte::core {

/// Conductivity of a settled solution at the temperature it was settled for: the limiting molar conductivity
/// of every free species at that temperature, lowered for the ionic strength by Debye, Hueckel and Onsager's
/// law (docs/chemistry.md), times its concentration. A pair with magnesium or calcium sulfate goes on
/// carrying some current: ions so loosely paired part and meet again (data/ions.csv).
Conductivity conductivityOf(const Equilibrium& settled, const Solutes& perKgWater, double waterKgPerLitre,
                            Temperature temperature);

/// What a meter shows that reads `actual` at `temperature` and compensates to 25 degC by a fixed share per
/// kelvin (2 % unless its manual says otherwise: common practice; feeds follow about 1.9 to 2.1 %).
Conductivity compensatedReading(Conductivity actual, Temperature temperature, double percentPerKelvin = 2.0);

/// The growers' rule beside it: cations in meq/L divided by 10 (common practice).
Conductivity conductivityByRule(const IonBalance& ions);

} // namespace butte::core
