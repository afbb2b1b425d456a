#include "stock/crystal_form.h"

#include "product/catalogue.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

/// Labels are rounded, and salts are sold at 97 % and more: as near as that is the same salt.
constexpr double sameWithin = 0.04, orWithinGramsPerGram = 0.002;

bool isNear(const NutrientAmounts& label, const NutrientAmounts& formula) {
  return std::all_of(allNutrients.begin(), allNutrients.end(), [&](Nutrient n) {
    const double a = label.of(n), b = formula.of(n);
    return std::abs(a - b) <= std::max(orWithinGramsPerGram, sameWithin * std::max(a, b));
  });
}

bool mayBeTwin(const CatalogueProduct& product) {
  return !product.liquid && product.composition.formula && product.composition.role == ProductRole::Salt;
}

} // namespace

const ChemicalFormula* crystalFormOf(const Composition& product) {
  if (product.formula) return &*product.formula;
  if (product.role != ProductRole::Salt) return nullptr;
  for (const auto& twin : catalogue()) {
    if (mayBeTwin(twin) && isNear(product.massFraction, twin.composition.massFraction))
      return &*twin.composition.formula;
  }
  return nullptr;
}

double waterFreeFractionOf(const Composition& product) {
  if (product.formula) return product.anhydrousFraction;
  const auto* form = crystalFormOf(product);
  return form ? 1 - hydrateWaterFraction(*form) : product.anhydrousFraction;
}

} // namespace butte::core
