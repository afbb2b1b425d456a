#include "formula/mix.h"

#include "chem/conductivity.h"

namespace butte::core {

MixResult mix(const Water& water, const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& grams,
              Volume volume) {
  MixResult out;
  out.milligramsPerLitre = water.milligramsPerLitre;
  out.netAlkalinityMeqPerL = water.alkalinityMeqPerL.value_or(0);
  double cost = 0;
  bool priced = true;
  for (std::size_t j = 0; j < shelf.size(); ++j) {
    const auto concentration = grams[j] / volume;
    out.milligramsPerLitre.addScaled(shelf[j].composition.massFraction, concentration.milligramsPerLitre());
    out.netAlkalinityMeqPerL += shelf[j].composition.alkalinityMeqPerGram * concentration.gramsPerLitre();
    if (shelf[j].pricePerKg)
      cost += *shelf[j].pricePerKg * grams[j].kilograms();
    else if (grams[j] > Mass{})
      priced = false;
  }
  out.ions = ionBalance(out.milligramsPerLitre, out.netAlkalinityMeqPerL);
  out.conductivity = estimateConductivity(out.ions, out.milligramsPerLitre);
  out.conductivityByRule = conductivityByRule(out.ions);
  // A water known by its EC only still shows on the meter.
  if (!water.compositionKnown && water.conductivityMsPerCm) {
    const auto base = Conductivity::fromMilliSiemensPerCm(*water.conductivityMsPerCm);
    out.conductivity = out.conductivity + base;
    out.conductivityByRule = out.conductivityByRule + base;
  }
  if (priced) out.cost = cost;
  return out;
}

} // namespace butte::core
