#include "words.h"

#include "language.h"

#include <cmath>

namespace butte::words {

using core::Nutrient;

std::string nutrientName(Nutrient nutrient) {
  switch (nutrient) {
  case Nutrient::N:
    return text("nitrogen");
  case Nutrient::NNitrate:
    return text("nitrate nitrogen");
  case Nutrient::NAmmonium:
    return text("ammonium nitrogen");
  case Nutrient::NUrea:
    return text("urea nitrogen");
  case Nutrient::P:
    return text("phosphorus");
  case Nutrient::K:
    return text("potassium");
  case Nutrient::Ca:
    return text("calcium");
  case Nutrient::Mg:
    return text("magnesium");
  case Nutrient::S:
    return text("sulfur");
  case Nutrient::Fe:
    return text("iron");
  case Nutrient::Mn:
    return text("manganese");
  case Nutrient::Zn:
    return text("zinc");
  case Nutrient::B:
    return text("boron");
  case Nutrient::Cu:
    return text("copper");
  case Nutrient::Mo:
    return text("molybdenum");
  case Nutrient::Si:
    return text("silicon");
  case Nutrient::Na:
    return text("sodium");
  case Nutrient::Cl:
    return text("chloride");
  }
  return {};
}

std::string nutrientSymbol(Nutrient nutrient) {
  switch (nutrient) {
  case Nutrient::NNitrate:
    return "NO₃-N";
  case Nutrient::NAmmonium:
    return "NH₄-N";
  case Nutrient::NUrea:
    return text("urea-N");
  default:
    return std::string(core::nutrientKey(nutrient));
  }
}

std::string digits(double value) {
  const double size = std::abs(value);
  if (size < 1e-9) return "0";
  if (size < 0.001) return fmt::format("{:.{}f}", value, 1 - static_cast<int>(std::floor(std::log10(size))));
  if (size >= 10000) { // four that count, as below
    const double step = std::pow(10, std::floor(std::log10(size)) - 3);
    return fmt::format("{:.0f}", std::round(value / step) * step);
  }
  const int places = size >= 100 ? 0 : size >= 10 ? 1 : size >= 1 ? 2 : size >= 0.1 ? 3 : 4;
  return fmt::format("{:.{}f}", value, places);
}

std::string figure(double value) {
  return figureText(digits(value));
}

std::string nameAsIs(const std::string& id) {
  return id;
}

} // namespace butte::words
