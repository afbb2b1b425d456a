#include "formula/contributions.h"

namespace butte::core {

Contributions contributionsTo(const NutrientAmounts& water, const std::vector<ShelfProduct>& shelf,
                              const std::vector<Mass>& grams, Volume volume) {
  Contributions out;
  for (const auto nutrient : allNutrients) {
    auto& sources = out[static_cast<std::size_t>(nutrient)];
    sources.push_back({std::nullopt, water.of(nutrient)});
    for (std::size_t j = 0; j < grams.size(); ++j) {
      const double share =
          shelf[j].composition.massFraction.of(nutrient) * (grams[j] / volume).milligramsPerLitre();
      if (share > 0) sources.push_back({j, share});
    }
  }
  return out;
}

} // namespace butte::core
