#pragma once
#include <limits>

/// Figures that many rooms need, each in this one place.
namespace butte::core::constant {
inline constexpr double ln10 = 2.302585092994046;
inline constexpr double infinity = std::numeric_limits<double>::infinity();
/// g/mol; IUPAC 2021 abridged atomic weights.
inline constexpr double waterGramsPerMol = 18.015;
/// kg/L at 20 degC (0.9982; CRC Handbook, from memory).
inline constexpr double freshWaterKgPerLitre = 0.998;
/// Half the molar mass of CaCO3, 100.086 g/mol; IUPAC 2021 abridged atomic weights.
inline constexpr double milligramsCaCO3PerMeq = 100.086 / 2;
} // namespace butte::core::constant
