#include "solution/solution_state.h"

#include "solution/conductivity.h"
#include "units/constants.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
bool formsSoon(FormsWithin kinetics) {
  return kinetics == FormsWithin::Minutes || kinetics == FormsWithin::Hours;
}

namespace {

/// Which of the standing solids may fall in one question.
using MayFall = bool (*)(FormsWithin);

bool mayFallInTheEnd(FormsWithin kinetics) {
  return kinetics != FormsWithin::NeverFirst;
}

/// Settles with those solids; gives the equilibrium and the amounts in mol per kg, parallel to `standing`.
Result<std::pair<Equilibrium, std::vector<double>>> fall(const Solutes& perKg,
                                                         EquilibriumConditions conditions,
                                                         const std::vector<SolidStanding>& standing,
                                                         MayFall may) {
  const auto& data = EquilibriumData::instance();
  const auto& constants = data.at(conditions.temperature);
  std::vector<std::size_t> place;
  for (std::size_t k = 0; k < standing.size(); ++k) {
    const auto& solid = data.solids()[standing[k].solid];
    if (!may(solid.formsWithin)) continue;
    conditions.solids.push_back({solid.dissolved, constants.lnSolubility[standing[k].solid]});
    place.push_back(k);
  }
  auto settled = equilibrate(perKg, conditions);
  if (!settled) return settled.problem();
  std::vector<double> amounts(standing.size(), 0.0);
  for (std::size_t i = 0; i < place.size(); ++i)
    amounts[place[i]] = settled->solidMol[i];
  return std::pair(std::move(settled).value(), std::move(amounts));
}

bool overSaturated(const SolutionState& state, MayFall may) {
  return std::any_of(state.solids.begin(), state.solids.end(), [&](const SolidStanding& s) {
    return s.saturationIndex > 0 && may(EquilibriumData::instance().solids()[s.solid].formsWithin);
  });
}

} // namespace

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
  out.leftPerLitre = perLitre;
  for (std::size_t i = 0; i < data.solids().size(); ++i) {
    const double ln = out.settled.lnIonProduct(data.solids()[i].dissolved) - constants.lnSolubility[i];
    if (std::isfinite(ln)) out.solids.push_back({i, ln / constant::ln10});
  }
  auto from = conditions;
  from.start = &out.settled;
  if (overSaturated(out, formsSoon)) {
    const auto fallen = fall(perKg, from, out.solids, formsSoon);
    if (!fallen) return fallen.problem();
    out.phAfterSolids = fallen->first.ph;
    for (std::size_t k = 0; k < out.solids.size(); ++k) {
      const auto& solid = data.solids()[out.solids[k].solid];
      const double molPerLitre = fallen->second[k] * waterKgPerLitre;
      out.solids[k].gramsPerLitre = molPerLitre * solid.molarMassGPerMol;
      for (const auto& [component, power] : solid.dissolved.components)
        out.leftPerLitre.mol[component] -= power * molPerLitre;
    }
  }
  if (overSaturated(out, mayFallInTheEnd)) {
    const auto fallen = fall(perKg, from, out.solids, mayFallInTheEnd);
    if (!fallen) return fallen.problem();
    for (std::size_t k = 0; k < out.solids.size(); ++k)
      out.solids[k].gramsPerLitreInTheEnd =
          fallen->second[k] * waterKgPerLitre * data.solids()[out.solids[k].solid].molarMassGPerMol;
  }
  return out;
}

Result<Conductivity> conductivityAt(Temperature temperature, const Solutes& perLitre, double waterKgPerLitre,
                                    const EquilibriumConditions& conditions) {
  if (!(waterKgPerLitre > 0)) return problemAt(ProblemCode::NoEquilibrium, "solution", {});
  auto there = conditions;
  there.temperature = temperature;
  there.solids.clear();
  const Solutes perKg = perLitre.scaled(1 / waterKgPerLitre);
  const auto settled = equilibrate(perKg, there);
  if (!settled) return settled.problem();
  return conductivityOf(*settled, perKg, waterKgPerLitre, temperature);
}

Result<Conductivity> conductivityAt25(const Solutes& perLitre, double waterKgPerLitre,
                                      const EquilibriumConditions& conditions) {
  return conductivityAt(Temperature::fromCelsius(25), perLitre, waterKgPerLitre, conditions);
}

} // namespace butte::core
