#pragma once
#include "base/result.h"
#include "units/quantity.h"

#include <optional>

namespace butte::core {

/// Water's heat capacity, kJ per litre and kelvin: 4.18 between 10 and 30 degC (handbooks).
inline constexpr double heatPerLitreKelvin = 4.18;

/// The share of hot water (0 to 1) that makes a blend this warm; nothing where neither gets there.
std::optional<double> hotShareFor(Temperature hot, Temperature cold, Temperature wanted);

/// Hours that a heater of so many watts takes, losses left out; nothing where it would have to cool.
std::optional<double> heaterHours(Volume volume, Temperature from, Temperature to, double watts);

/// How fast a vessel follows the air, from two readings so many hours apart: the share of the gap that closes
/// in an hour (Newton's law of cooling), as a rate per hour. Nothing where it went away from the air.
std::optional<double> followingRatePerHour(Temperature before, Temperature after, Temperature air,
                                           double hours);
/// Where it stands after so many hours.
Temperature warmedTo(Temperature now, Temperature air, double ratePerHour, double hours);

/// Oxygen that fresh water holds under air at sea level, mg/L: Benson & Krause 1984 as Standard Methods
/// 4500-O has it (from memory), 0 to 40 degC.
double oxygenAtSaturation(Temperature temperature);

} // namespace butte::core
