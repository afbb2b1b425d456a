#include "words.h"

#include <cmath>
#include <fmt/format.h>

namespace butte::words {

using core::Nutrient;

std::string nutrientName(Nutrient nutrient) {
  switch (nutrient) {
  case Nutrient::N:
    return "nitrogen";
  case Nutrient::NNitrate:
    return "nitrate nitrogen";
  case Nutrient::NAmmonium:
    return "ammonium nitrogen";
  case Nutrient::NUrea:
    return "urea nitrogen";
  case Nutrient::P:
    return "phosphorus";
  case Nutrient::K:
    return "potassium";
  case Nutrient::Ca:
    return "calcium";
  case Nutrient::Mg:
    return "magnesium";
  case Nutrient::S:
    return "sulfur";
  case Nutrient::Fe:
    return "iron";
  case Nutrient::Mn:
    return "manganese";
  case Nutrient::Zn:
    return "zinc";
  case Nutrient::B:
    return "boron";
  case Nutrient::Cu:
    return "copper";
  case Nutrient::Mo:
    return "molybdenum";
  case Nutrient::Si:
    return "silicon";
  case Nutrient::Na:
    return "sodium";
  case Nutrient::Cl:
    return "chloride";
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
    return "urea-N";
  default:
    return std::string(core::nutrientKey(nutrient));
  }
}

std::string figure(double value) {
  const double size = std::abs(value);
  if (size >= 100) return fmt::format("{:.0f}", value);
  if (size >= 10) return fmt::format("{:.1f}", value);
  if (size >= 1) return fmt::format("{:.2f}", value);
  if (size >= 0.1) return fmt::format("{:.3f}", value);
  if (size >= 0.001) return fmt::format("{:.4f}", value);
  return size < 1e-9 ? "0" : fmt::format("{:.2g}", value);
}

std::string nameAsIs(const std::string& id) {
  return id;
}

} // namespace butte::words
