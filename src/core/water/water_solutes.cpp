#include "water/water_solutes.h"

#include "product/product_solutes.h"
#include "solution/equilibrium.h"
#include "solution/solution_state.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

constexpr double usualCelsius = 20;
/// Water under pure carbon dioxide at 1 atm and 20 degC holds about this, in mol/L (Henry's law); no source
/// water holds more.
constexpr double mostCarbonate = 0.04;
/// The pH to which alkalinity is titrated (Standard Methods 2320, from memory): below it there is none, and
/// carbon dioxide alone brings no ordinary water there.
constexpr double endOfAlkalinity = 4.5;
constexpr double leastAlkalinityEq = 5e-5; // what a report rounds to none

/// A water so sour, and without alkalinity, holds strong acid: what it lacks of alkalinity says its pH.
bool holdsStrongAcid(const Solutes& perLitre, double ph) {
  return ph < endOfAlkalinity && std::abs(perLitre.alkalinityEq) <= leastAlkalinityEq;
}

} // namespace

Temperature temperatureOf(const Water& water) {
  return Temperature::fromCelsius(std::clamp(water.temperatureCelsius.value_or(usualCelsius), 0.0, 45.0));
}

std::optional<double> computedConductivityMsPerCm(const Water& water) {
  constexpr double waterKgPerLitre = 0.998; // fresh water at 20 degC
  EquilibriumConditions conditions;
  conditions.temperature = temperatureOf(water);
  const auto found = conductivityAt25(waterSolutes(water).perLitre, waterKgPerLitre, conditions);
  return found ? std::optional(found->milliSiemensPerCm()) : std::nullopt;
}

WaterSolutes waterSolutes(const Water& water) {
  WaterSolutes out;
  NutrientAmounts grams;
  grams.addScaled(water.milligramsPerLitre, 1e-3);
  out.perLitre = solutesOfNutrients(grams);
  out.phFollows = water.compositionKnown && water.alkalinityMeqPerL.has_value();
  if (!out.phFollows) return out;
  out.perLitre.alkalinityEq = *water.alkalinityMeqPerL / 1000;
  auto& carbonate = out.perLitre.of(Component::Carbonate);
  if (!water.ph) {
    carbonate = std::max(out.perLitre.alkalinityEq, 0.0);
    return out;
  }
  if (holdsStrongAcid(out.perLitre, *water.ph)) {
    EquilibriumConditions air;
    air.temperature = temperatureOf(water);
    air.ph = *water.ph;
    air.carbonDioxideAtm = airCarbonDioxideAtm;
    if (const auto settled = equilibrate(out.perLitre, air)) {
      out.perLitre.alkalinityEq = settled->alkalinityEq;
      carbonate = settled->carbonateMol;
      return out;
    }
  }
  const auto fitting = carbonateFor(out.perLitre, *water.ph, temperatureOf(water));
  carbonate = fitting ? *fitting : out.perLitre.alkalinityEq;
  const bool none = carbonate <= 0 && out.perLitre.alkalinityEq > 1e-4;
  if (none || carbonate > mostCarbonate) {
    out.phContradicts = true;
    carbonate = std::max(out.perLitre.alkalinityEq, 0.0);
  }
  return out;
}

} // namespace butte::core
