#include "tank/reservoir_content.h"

#include "chem/atomic_weights.h"
#include "formula/mix.h"
#include "product/product_solutes.h"
#include "water/water.h"

#include <algorithm>

namespace butte::core {

double molarMass(Nutrient nutrient) {
  static const auto masses = [] {
    std::array<double, nutrientCount> out{};
    for (const auto n : allNutrients)
      out[static_cast<std::size_t>(n)] = *atomicWeight(elementSymbol(n));
    return out;
  }();
  return masses[static_cast<std::size_t>(nutrient)];
}

FeedContent feedContentOf(const MixResult& feed) {
  return {feed.milligramsPerLitre, feed.solutesPerLitre.alkalinityEq * 1000};
}

FeedContent feedContentOf(const Water& water) {
  return {water.milligramsPerLitre, water.alkalinityMeqPerL.value_or(0)};
}

std::optional<FeedContent> ReservoirContent::perLitre() const {
  if (!(volume > Volume{})) return std::nullopt;
  FeedContent out;
  out.milligramsPerLitre.addScaled(milligrams, 1 / volume.litres());
  out.alkalinityMeqPerL = alkalinityMeq / volume.litres();
  return out;
}

double ReservoirContent::milligramsPerLitre(Nutrient nutrient) const {
  return volume > Volume{} ? milligrams.of(nutrient) / volume.litres() : 0;
}

double ReservoirContent::unbalancedMeq() const {
  double out = alkalinityMeq;
  for (const auto n : keptNutrients)
    out -= chargeInFeed(n) * milligrams.of(n) / molarMass(n);
  return out;
}

void ReservoirContent::pour(const FeedContent& feed, Volume poured) {
  volume = volume + poured;
  milligrams.addScaled(feed.milligramsPerLitre, poured.litres());
  alkalinityMeq += feed.alkalinityMeqPerL * poured.litres();
}

void ReservoirContent::drain(Volume drained) {
  if (!(volume > Volume{})) return;
  const double left = 1 - std::min(drained / volume, 1.0);
  NutrientAmounts rest;
  rest.addScaled(milligrams, left);
  milligrams = rest;
  alkalinityMeq *= left;
  volume = volume * left;
}

Solutes solutesPerLitre(const FeedContent& content) {
  NutrientAmounts grams;
  grams.addScaled(content.milligramsPerLitre, 1e-3);
  auto out = solutesOfLabel(grams);
  out.alkalinityEq = content.alkalinityMeqPerL / 1000;
  out.of(Component::Carbonate) = std::max(out.alkalinityEq, 0.0);
  return out;
}

} // namespace butte::core
