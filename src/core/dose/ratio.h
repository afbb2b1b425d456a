#pragma once
#include "base/result.h"

#include <string_view>

namespace butte::core {

/// The ways in which devices and cards state a dilution. All mean parts of stock in the finished feed.
enum class RatioForm {
  OneTo,   ///< 1:100 is 10 mL in a litre of finished feed
  Percent, ///< 1 % is 1:100
  MlPerLitre,
  MlPerUsGallon,
  MlPerImperialGallon,
  FluidOuncesPerUsGallon, ///< US fluid ounces; 1 is 1:128
  MlPerHundredLitres,     ///< as labels of the greenhouse trade state it
  LitresPerThousandLitres,
  MlPerTenUsGallons,
};

/// "one_to", "percent", "ml_per_l", "ml_per_gal_us", "ml_per_gal_imp", "floz_per_gal_us",
/// "ml_per_100_l", "l_per_1000_l", "ml_per_10_gal_us".
std::string_view ratioKey(RatioForm form);
inline constexpr int ratioFormCount = 9;

/// The stock factor (100 for 1:100) of a figure in a form. Error: OutOfRange where it is not above 0, or says
/// more stock than feed.
Result<double> factorFrom(RatioForm form, double figure);
/// The figure of a stock factor in a form; the factor must be above 0.
double figureOf(RatioForm form, double factor);

} // namespace butte::core
