#include "formula/mix.h"

#include "product/product_doubts.h"
#include "solution/conductivity.h"
#include "stock/stock_density.h"
#include "water/water_solutes.h"

namespace butte::core {
namespace {

/// A litre is a litre where its EC is stated.
constexpr auto conductivityTemperature = Temperature::fromCelsius(25);

/// What the equilibrium says of the feed: EC, pH, what may fall out.
void settle(MixResult& out, bool phFollows) {
  EquilibriumConditions conditions;
  conditions.temperature = out.temperature;
  auto state = stateOf(out.solutesPerLitre, out.waterKgPerLitre, conditions);
  if (state) conditions.start = &state->settled; // nearly the same waters follow
  const auto at25 = conductivityAt25(out.solutesPerLitre, out.waterKgPerLitre, conditions);
  if (!state || !at25) {
    out.conductivity = out.conductivityByRule;
    return;
  }
  out.conductivity = *at25;
  if (phFollows) {
    out.ph = state->ph;
    conditions.carbonDioxideAtm = airCarbonDioxideAtm;
    if (const auto open = equilibrate(out.solutesPerLitre.scaled(1 / out.waterKgPerLitre), conditions))
      out.phInAir = open->ph;
  }
  out.state = std::move(state).value();
}

} // namespace

MixResult mix(const Water& water, const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& grams,
              Volume volume) {
  MixResult out;
  out.milligramsPerLitre = water.milligramsPerLitre;
  out.netAlkalinityMeqPerL = water.alkalinityMeqPerL.value_or(0);
  const auto source = waterSolutes(water);
  out.solutesPerLitre = source.perLitre;
  out.temperature = temperatureOf(water);
  out.waterPhContradicts = source.phContradicts;
  double cost = 0;
  bool priced = true;
  std::vector<Concentration> concentrations;
  for (std::size_t j = 0; j < shelf.size(); ++j) {
    const auto concentration = grams[j] / volume;
    concentrations.push_back(concentration);
    out.milligramsPerLitre.addScaled(shelf[j].composition.massFraction, concentration.milligramsPerLitre());
    out.solutesPerLitre.addScaled(shelf[j].composition.solutesPerGram, concentration.gramsPerLitre());
    out.netAlkalinityMeqPerL += shelf[j].composition.alkalinityMeqPerGram * concentration.gramsPerLitre();
    if (grams[j] > Mass{} && !shelf[j].composition.acidityKnown) out.acidityKnown = false;
    out.unstatedMeqPerLitre += unstatedMeqPerGram(shelf[j]) * concentration.gramsPerLitre();
    if (shelf[j].pricePerKg)
      cost += *shelf[j].pricePerKg * grams[j].kilograms();
    else if (grams[j] > Mass{})
      priced = false;
  }
  out.waterKgPerLitre = StockWater(shelf, concentrations, conductivityTemperature).kgPerLitre();
  out.ions = ionBalance(out.milligramsPerLitre, out.netAlkalinityMeqPerL);
  out.conductivityByRule = conductivityByRule(out.ions);
  settle(out, source.phFollows && out.acidityKnown);
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
