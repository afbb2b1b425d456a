#include "solution/equilibrium.h"

#include "base/decimal.h"
#include "solution/mass_action.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

constexpr double mostMolPerKg = 60;

std::optional<Problem> checkRange(const Solutes& totals, const EquilibriumConditions& conditions) {
  const double celsius = conditions.temperature.celsius();
  if (!(celsius >= 0 && celsius <= 45))
    return problemAt(ProblemCode::OutOfRange, "temperature_c", {decimalText(celsius), "0 to 45 degC"});
  if (conditions.ph && !(*conditions.ph >= 0 && *conditions.ph <= 14))
    return problemAt(ProblemCode::OutOfRange, "ph", {decimalText(*conditions.ph), "0 to 14"});
  if (conditions.carbonDioxideAtm && !(*conditions.carbonDioxideAtm > 0 && *conditions.carbonDioxideAtm <= 1))
    return problemAt(ProblemCode::OutOfRange, "pco2_atm",
                     {decimalText(*conditions.carbonDioxideAtm), "above 0, up to 1 atm; air has 0.00042"});
  const auto inRange = [](double v) { return v >= 0 && v <= mostMolPerKg; };
  for (const auto c : allComponents) {
    if (!inRange(totals.of(c)))
      return problemAt(ProblemCode::OutOfRange, std::string(componentSpecies(c)),
                       {decimalText(totals.of(c)), "0 to 60 mol per kg of water"});
  }
  if (!(std::abs(totals.alkalinityEq) <= mostMolPerKg))
    return problemAt(ProblemCode::OutOfRange, "alkalinity",
                     {decimalText(totals.alkalinityEq), "-60 to 60 equivalents per kg of water"});
  return std::nullopt;
}

/// Adds the solid that stands highest above its solubility, takes away what would have a negative amount,
/// until neither is left.
bool settleWithSolids(MassAction& system, std::size_t solidCount, std::vector<std::size_t>& present) {
  std::vector<bool> refused(solidCount, false);
  for (int round = 0; round < 60; ++round) {
    const auto& amounts = system.amounts();
    const auto least = std::min_element(amounts.begin(), amounts.end());
    if (least != amounts.end() && *least < 0) {
      present.erase(present.begin() + (least - amounts.begin()));
      if (!system.settle(present)) return false;
      continue;
    }
    std::optional<std::size_t> highest;
    double most = 1e-9;
    for (std::size_t i = 0; i < solidCount; ++i) {
      if (refused[i] || std::find(present.begin(), present.end(), i) != present.end()) continue;
      const auto over = system.lnSaturation(i);
      if (over && *over > most) {
        most = *over;
        highest = i;
      }
    }
    if (!highest) return true;
    present.push_back(*highest);
    if (!system.settle(present)) {
      refused[*highest] = true; // it excludes another one that is present
      present.pop_back();
      if (!system.settle(present)) return false;
    }
  }
  return false;
}

} // namespace

double Equilibrium::lnIonProduct(const Stoichiometry& solid) const {
  double ln = solid.hydrogen * lnHydrogen + solid.water * std::log(waterActivity);
  for (const auto& [component, power] : solid.components) {
    if (power != 0) ln += power * lnActivity[component];
  }
  return ln;
}

Result<Equilibrium> equilibrate(const Solutes& perKgWater, const EquilibriumConditions& conditions) {
  if (auto problem = checkRange(perKgWater, conditions)) return *problem;
  MassAction system(perKgWater, conditions);
  std::vector<std::size_t> present;
  bool settled = system.settle(present);
  if (settled && !conditions.solids.empty())
    settled = settleWithSolids(system, conditions.solids.size(), present);
  if (!settled) return problemAt(ProblemCode::NoEquilibrium, "solution", {});
  auto out = system.result();
  out.solidMol.assign(conditions.solids.size(), 0.0);
  for (std::size_t i = 0; i < present.size(); ++i)
    out.solidMol[present[i]] = system.amounts()[i];
  return out;
}

Result<double> carbonateFor(const Solutes& perKgWater, double ph, Temperature temperature) {
  EquilibriumConditions conditions;
  conditions.temperature = temperature;
  conditions.ph = ph;
  Solutes totals = perKgWater;
  const auto alkalinityWith = [&](double carbonate) -> Result<double> {
    totals.of(Component::Carbonate) = carbonate;
    const auto settled = equilibrate(totals, conditions);
    if (!settled) return settled.problem();
    return settled->alkalinityEq - perKgWater.alkalinityEq;
  };
  double lower = 0;
  const auto without = alkalinityWith(lower);
  if (!without) return without.problem();
  double lowerGap = *without;
  if (lowerGap >= 0) return 0.0;
  // Nearly straight in the carbonate: secants, kept inside a bracket.
  double upper = -lowerGap;
  for (int i = 0; i < 60; ++i) {
    const auto found = alkalinityWith(upper);
    if (!found) return found.problem();
    const double gap = *found;
    if (std::abs(gap) <= 1e-12 + 1e-10 * std::abs(perKgWater.alkalinityEq)) break;
    const double slope = (gap - lowerGap) / (upper - lower);
    if (!(slope > 0)) return 0.0; // so acid that carbonate cannot hold any alkalinity
    const double next = upper - gap / slope;
    lower = upper;
    lowerGap = gap;
    upper = std::max(next, 0.0);
    if (upper > 10) return 0.0;
  }
  return upper;
}

} // namespace butte::core
