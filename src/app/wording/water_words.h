#pragma once
#include "water/water.h"

#include <QString>

namespace butte::app {

/// A figure with its range, in the digits that the range allows: "152 ± 90", "0.34 ± 0.12".
QString plusMinusText(double value, double plusMinus);

/// Whether the alkalinity stands for a guess, not for a measurement.
bool isGuessed(const core::Water& water);

/// Alkalinity in mg/L as CaCO3 with its unit, so that a guess looks like one: "152 mg/L", "≈ 150 ± 90 mg/L".
QString alkalinityText(double meqPerL, const core::Water& water);

} // namespace butte::app
