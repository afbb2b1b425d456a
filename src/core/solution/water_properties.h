#pragma once

namespace butte::core {

/// Pure water at 25 degC and 1 atm (CRC Handbook, from memory).
inline constexpr double waterDensityKgPerLitre = 0.99705;
inline constexpr double waterHeatKilojoulesPerKgKelvin = 4.18;

} // namespace butte::core
