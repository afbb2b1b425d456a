#include "stock/tank_chemistry.h"

#include "stock/salt_solids.h"
#include "stock/strength_curve.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace butte::core {
namespace {

constexpr double leastSlope = 0.3; // of ln saturation by ln strength; a salt of two ions has 2 when thin
constexpr double outOfReach = 1e6; // times the strength of the first to fall

const Stoichiometry& stoichiometryOf(const TankSolid& solid) {
  const auto& data = EquilibriumData::instance();
  return solid.salt ? saltSolids()[*solid.salt].dissolved
                    : data.solids()[*data.solidIndex(solid.name)].dissolved;
}

double solutesIn(const Solutes& s) {
  return std::accumulate(s.mol.begin(), s.mol.end(), 0.0);
}

} // namespace

TankChemistry::TankChemistry(const Solutes& perKgWater, Temperature temperature, const Solutes& waterPerKg)
    : m_perKg(perKgWater), m_waterPerKg(waterPerKg) {
  m_conditions.temperature = temperature;
  const double celsius = temperature.celsius();
  m_known = celsius >= 0 && celsius <= 45;
  if (!m_known || solutesIn(m_perKg) <= 0) return;
  addCandidates();
  order();
}

void TankChemistry::addCandidates() {
  const auto all = totals(1);
  const auto present = [&](const Stoichiometry& solid) {
    return std::all_of(solid.components.begin(), solid.components.end(),
                       [&](const auto& part) { return all.mol[part.first] > 0; });
  };
  const auto temperature = m_conditions.temperature;
  for (std::size_t i = 0; i < saltSolids().size(); ++i) {
    const auto& salt = saltSolids()[i];
    if (!present(salt.dissolved)) continue;
    if (const auto ln = lnSaltSolubility(i, temperature))
      m_candidates.push_back({{salt.name, i}, {salt.dissolved, *ln}});
  }
  const auto& data = EquilibriumData::instance();
  const auto& at = data.at(temperature);
  for (std::size_t i = 0; i < data.solids().size(); ++i) {
    const auto& solid = data.solids()[i];
    if (!formsSoon(solid.formsWithin) || !present(solid.dissolved)) continue;
    m_candidates.push_back(
        {{solid.name, std::nullopt, solid.formsWithin}, {solid.dissolved, at.lnSolubility[i]}});
  }
}

/// A carbonate that no salt of the tank brings any carbonate to: what the water can drop is no matter of the
/// tank's strength.
bool TankChemistry::isWatersOwn(const Candidate& candidate) const {
  return m_perKg.of(Component::Carbonate) <= 0 && holds(candidate.solid, Component::Carbonate);
}

void TankChemistry::order() {
  StrengthCurve curve(m_perKg, m_waterPerKg, m_conditions.temperature, phases());
  std::vector<bool> counts;
  for (const auto& candidate : m_candidates)
    counts.push_back(!isWatersOwn(candidate));
  const auto first = firstFall(curve, solutesIn(m_perKg), counts);
  m_known = first.has_value();
  if (!first) return;
  std::vector<std::pair<double, Candidate>> found;
  for (std::size_t i = 0; i < m_candidates.size(); ++i) {
    const double over = first->at.lnSaturation[i];
    const double away = first->solid == i ? 0 : -over / std::max(first->slope[i], leastSlope);
    const double strength = !first->counts[i] && over > 0 ? 0 : std::exp(first->at.lnStrength + away);
    if (std::isfinite(over) && away < std::log(outOfReach)) found.emplace_back(strength, m_candidates[i]);
  }
  std::stable_sort(found.begin(), found.end(),
                   [](const auto& a, const auto& b) { return a.first < b.first; });
  m_candidates.clear();
  for (auto& [strength, candidate] : found) {
    m_reaches.push_back({candidate.solid, strength});
    m_candidates.push_back(std::move(candidate));
  }
}

std::vector<SolidPhase> TankChemistry::phases() const {
  std::vector<SolidPhase> out;
  for (const auto& candidate : m_candidates)
    out.push_back(candidate.phase);
  return out;
}

Solutes TankChemistry::totals(double strength) const {
  Solutes sum = m_perKg.scaled(strength);
  sum.addScaled(m_waterPerKg, 1);
  return sum;
}

std::optional<double> TankChemistry::phAt(double strength) const {
  const auto settled = equilibrate(totals(strength), m_conditions);
  if (!settled) return std::nullopt;
  return settled->ph;
}

std::optional<std::vector<double>> TankChemistry::fallenAt(double strength) const {
  auto conditions = m_conditions;
  conditions.solids = phases();
  auto settled = equilibrate(totals(strength), conditions);
  if (!settled) return std::nullopt;
  return std::move(settled->solidMol);
}

double TankChemistry::molarMass(const TankSolid& solid) const {
  const auto& data = EquilibriumData::instance();
  return solid.salt ? saltSolids()[*solid.salt].formula.molarMassGPerMol
                    : data.solids()[*data.solidIndex(solid.name)].molarMassGPerMol;
}

bool TankChemistry::holds(const TankSolid& solid, Component component) const {
  const auto& parts = stoichiometryOf(solid).components;
  return std::any_of(parts.begin(), parts.end(),
                     [&](const auto& part) { return part.first == static_cast<std::size_t>(component); });
}

Solutes TankChemistry::takenBy(const TankSolid& solid) const {
  const auto& made = stoichiometryOf(solid);
  Solutes out;
  for (const auto& [component, count] : made.components)
    out.mol[component] += count * solid.molPerLitre;
  // Alkalinity is counted from CO2, H2PO4- and the whole organic acids (solution/solutes.h).
  out.alkalinityEq = 2 * out.of(Component::Carbonate) + 2 * out.of(Component::Phosphate) +
                     3 * out.of(Component::Citrate) + out.of(Component::Acetate) -
                     made.hydrogen * solid.molPerLitre;
  return out;
}

} // namespace butte::core
