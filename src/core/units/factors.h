#pragma once

/// Exact legal or defining factors. Source for all: international yard and pound agreement (1959), US gallon
/// of 231 cubic inches, UK Units of Measurement Regulations 1995 (gallon of 4.546 09 L); exact by definition.
namespace butte::core::factor {
inline constexpr double gramsPerPound = 453.59237;
inline constexpr double gramsPerOunce = gramsPerPound / 16;
inline constexpr double gramsPerGrain = 0.06479891;
inline constexpr double litresPerUsGallon = 3.785411784;
inline constexpr double litresPerImperialGallon = 4.54609;
inline constexpr double litresPerUsFluidOunce = litresPerUsGallon / 128;
inline constexpr double litresPerUsTeaspoon = litresPerUsGallon / 768;
inline constexpr double litresPerUsTablespoon = litresPerUsGallon / 256;
inline constexpr double litresPerUsCup = litresPerUsGallon / 16;
inline constexpr double squareMetresPerSquareFoot = 0.09290304;
/// The three conventions of "ppm" meters, in ppm per mS/cm (common practice).
inline constexpr double ppm500 = 500;
inline constexpr double ppm640 = 640;
inline constexpr double ppm700 = 700;
} // namespace butte::core::factor
