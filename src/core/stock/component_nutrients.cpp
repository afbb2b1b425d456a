#include "stock/component_nutrients.h"

#include "chem/atomic_weights.h"

#include <array>
#include <utility>

namespace butte::core {
namespace {

constexpr std::array<std::pair<Component, Nutrient>, 16> pairs{{{Component::Na, Nutrient::Na},
                                                                {Component::K, Nutrient::K},
                                                                {Component::NH4, Nutrient::NAmmonium},
                                                                {Component::Ca, Nutrient::Ca},
                                                                {Component::Mg, Nutrient::Mg},
                                                                {Component::NO3, Nutrient::NNitrate},
                                                                {Component::Cl, Nutrient::Cl},
                                                                {Component::SO4, Nutrient::S},
                                                                {Component::Phosphate, Nutrient::P},
                                                                {Component::Boron, Nutrient::B},
                                                                {Component::Silicon, Nutrient::Si},
                                                                {Component::Fe, Nutrient::Fe},
                                                                {Component::Mn, Nutrient::Mn},
                                                                {Component::Zn, Nutrient::Zn},
                                                                {Component::Cu, Nutrient::Cu},
                                                                {Component::Molybdate, Nutrient::Mo}}};

} // namespace

NutrientAmounts nutrientsIn(const Solutes& solutes) {
  NutrientAmounts out;
  for (const auto& [component, nutrient] : pairs) {
    if (solutes.of(component) != 0)
      out.add(nutrient, solutes.of(component) * atomicWeight(elementSymbol(nutrient)).value_or(0));
  }
  return out;
}

} // namespace butte::core
