#include "solution/solution_state.h"

#include "solution/conductivity.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {
constexpr double ln10 = 2.302585092994046;
}

bool formsSoon(FormsWithin kinetics) {
  return kinetics == FormsWithin::Minutes || kinetics == FormsWithin::Hours;
}

Result<SolutionState> stateOf(const Solutes& perLitre, double waterKgPerLitre,
                              const EquilibriumConditions& conditions) {
  if (!(waterKgPerLitre > 0)) return problemAt(ProblemCode::NoEquilibrium, "solution", {});
  const auto& data = EquilibriumData::instance();
  const auto& constants = data.at(conditions.temperature);
  const Solutes perKg = perLitre.scaled(1 / waterKgPerLitre);
  auto settled = equilibrate(perKg, conditions);
  if (!settled) return settled.problem();
  SolutionState out;
  out.settled = std::move(settled).value();
  out.waterKgPerLitre = waterKgPerLitre;
  out.ph = out.settled.ph;
  EquilibriumConditions withSolids = conditions;
  std::vector<std::size_t> place; // of the falling solids in out.solids
  bool falls = false;
  for (std::size_t i = 0; i < data.solids().size(); ++i) {
    const double ln = out.settled.lnIonProduct(data.solids()[i].dissolved) - constants.lnSolubility[i];
    if (!std::isfinite(ln)) continue;
    out.solids.push_back({i, ln / ln10, 0});
    if (!formsSoon(data.solids()[i].formsWithin)) continue;
    withSolids.solids.push_back({data.solids()[i].dissolved, constants.lnSolubility[i]});
    place.push_back(out.solids.size() - 1);
    falls |= ln > 0;
  }
  if (!falls) return out;
  withSolids.phGuess = out.ph;
  const auto fallen = equilibrate(perKg, withSolids);
  if (!fallen) return fallen.problem();
  for (std::size_t k = 0; k < place.size(); ++k) {
    auto& standing = out.solids[place[k]];
    standing.gramsPerLitre =
        fallen->solidMol[k] * data.solids()[standing.solid].molarMassGPerMol * waterKgPerLitre;
  }
  out.phAfterSolids = fallen->ph;
  return out;
}

Result<Conductivity> conductivityAt25(const Solutes& perLitre, double waterKgPerLitre,
                                      const EquilibriumConditions& conditions) {
  if (!(waterKgPerLitre > 0)) return problemAt(ProblemCode::NoEquilibrium, "solution", {});
  auto at25 = conditions;
  at25.temperature = Temperature::fromCelsius(25);
  at25.solids.clear();
  const Solutes perKg = perLitre.scaled(1 / waterKgPerLitre);
  const auto settled = equilibrate(perKg, at25);
  if (!settled) return settled.problem();
  return conductivityOf(*settled, perKg, waterKgPerLitre, at25.temperature);
}

} // namespace butte::core
