#include "quantity/typed_dose.h"

#include "bench/spoon.h"
#include "quantity/typed_quantity.h"

namespace butte::reading {

using namespace core;

namespace {

/// A volume of it as weight; nothing for a liquid of unknown density.
std::optional<Mass> massOf(Volume volume, const ShelfProduct& product) {
  if (!product.liquid)
    return levelTeaspoon(product).perTeaspoon * (volume.litres() / factor::litresPerUsTeaspoon);
  if (!product.densityKgPerL) return std::nullopt;
  return Mass::fromKilograms(volume.litres() * *product.densityKgPerL);
}

} // namespace

Result<Mass> typedDose(std::string_view text, const ShelfProduct& product, Volume batch) {
  const auto byMass = typedQuantity(text, "g/L");
  if (byMass) return Concentration::fromGramsPerLitre(byMass->value) * batch;
  // Parts of nothing: a dry product has no volume in a mix.
  const bool parts = text.find_first_of(":%") != std::string_view::npos;
  if (!product.liquid && parts) return byMass.problem();
  const auto volume = typedQuantity(text, "mL");
  const auto perLitre = volume ? volume : typedQuantity(text, "mL/L");
  if (!perLitre) return byMass.problem();
  const auto all = Volume::fromMillilitres(perLitre->value * (volume ? 1 : batch.litres()));
  if (const auto mass = massOf(all, product)) return *mass;
  return problemAt(ProblemCode::IncompatibleUnits, "", {std::string(text), "g"});
}

} // namespace butte::reading
