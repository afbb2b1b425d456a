#include "formula/acid_choices.h"

#include "solution/acid_dose.h"
#include "water/water_solutes.h"

#include <optional>

namespace butte::core {
namespace {

double wantedOf(const std::vector<TargetRow>& target, Nutrient nutrient) {
  double nitrogen = 0;
  for (const auto& row : target) {
    if (row.nutrient == nutrient) return row.milligramsPerLitre;
    if (row.nutrient == Nutrient::N) nitrogen = row.milligramsPerLitre;
  }
  return nutrient == Nutrient::NNitrate ? nitrogen : 0;
}

/// Equivalents (meq) that a gram takes. Citric and acetic acid let go as much as the pH asks for.
std::optional<double> takenPerGram(const CatalogueProduct& product, const Water& water) {
  if (product.composition.alkalinityMeqPerGram < 0) return -product.composition.alkalinityMeqPerGram;
  constexpr double usualPh = 5.8; // middle of the usual 5.5 to 6.2 (common practice)
  EquilibriumConditions conditions;
  conditions.temperature = temperatureOf(water);
  conditions.ph = usualPh;
  const auto there = equilibrate(waterSolutes(water).perLitre, conditions);
  if (!there) return std::nullopt;
  const double taken = 1000 * equivalentsPerGram(product.composition.solutesPerGram, *there);
  return taken > 0 ? std::optional(taken) : std::nullopt;
}

AcidChoice choiceOf(const CatalogueProduct& product, double equivalents, double perGram,
                    const std::vector<TargetRow>& target) {
  AcidChoice out;
  out.product = &product;
  out.gramsPerLitre = equivalents / perGram;
  if (product.densityKgPerL) out.millilitresPerLitre = out.gramsPerLitre / *product.densityKgPerL;
  out.bringsMgPerL.addScaled(product.composition.massFraction, out.gramsPerLitre * 1000);
  const auto& solutes = product.composition.solutesPerGram;
  out.weak = solutes.of(Component::Citrate) > 0 || solutes.of(Component::Acetate) > 0;
  for (const auto nutrient : {Nutrient::NNitrate, Nutrient::P, Nutrient::S, Nutrient::Cl}) {
    const double brings = out.bringsMgPerL.of(nutrient), wanted = wantedOf(target, nutrient);
    if (brings <= 0) continue;
    // An element that the target does not want counts whole.
    const double share = wanted > 0 ? brings / wanted : 1;
    if (share <= out.shareOfTarget) continue;
    out.mostOf = nutrient;
    out.shareOfTarget = share;
  }
  return out;
}

} // namespace

std::vector<AcidChoice> acidChoices(const Water& water, double alkalinityLeftMeqPerL,
                                    const std::vector<TargetRow>& target) {
  std::vector<AcidChoice> out;
  if (!water.alkalinityMeqPerL || *water.alkalinityMeqPerL <= alkalinityLeftMeqPerL) return out;
  for (const auto& product : catalogue()) {
    if (product.composition.role != ProductRole::Acid) continue;
    if (const auto perGram = takenPerGram(product, water))
      out.push_back(choiceOf(product, *water.alkalinityMeqPerL - alkalinityLeftMeqPerL, *perGram, target));
  }
  return out;
}

} // namespace butte::core
