#include "chem/nutrient.h"

namespace butte::core {
namespace {
constexpr std::array<std::string_view, nutrientCount> keys{"N",  "N_NO3", "N_NH4", "N_urea", "P",  "K",
                                                           "Ca", "Mg",    "S",     "Fe",     "Mn", "Zn",
                                                           "B",  "Cu",    "Mo",    "Si",     "Na", "Cl"};
}

std::string_view nutrientKey(Nutrient nutrient) {
  return keys[static_cast<std::size_t>(nutrient)];
}

std::optional<Nutrient> nutrientFromKey(std::string_view key) {
  for (const auto nutrient : allNutrients) {
    if (nutrientKey(nutrient) == key) return nutrient;
  }
  return std::nullopt;
}

std::string_view elementSymbol(Nutrient nutrient) {
  switch (nutrient) {
  case Nutrient::NNitrate:
  case Nutrient::NAmmonium:
  case Nutrient::NUrea:
    return "N";
  default:
    return nutrientKey(nutrient);
  }
}

bool isTraceElement(Nutrient nutrient) {
  switch (nutrient) {
  case Nutrient::Fe:
  case Nutrient::Mn:
  case Nutrient::Zn:
  case Nutrient::B:
  case Nutrient::Cu:
  case Nutrient::Mo:
    return true;
  default:
    return false;
  }
}

} // namespace butte::core
