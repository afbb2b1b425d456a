#include "stock/tank_chemistry.h"

#include "stock/salt_solids.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace butte::core {
namespace {

constexpr double mostSolutes = 45;        // mol/kg of all ions: about a saturated calcium nitrate
constexpr double leastWorthNaming = 1e-6; // saturation below which a solid is out of reach
constexpr int mostRefinements = 4;
constexpr double leastLookUp = 4;
constexpr double nearEnough = 1e-4; // in ln saturation: a curve through it and its neighbours has the rest

double solutesIn(const Solutes& s) {
  return std::accumulate(s.mol.begin(), s.mol.end(), 0.0);
}

} // namespace

TankChemistry::TankChemistry(const Solutes& perKgWater, Temperature temperature, const Solutes& waterPerKg)
    : m_perKg(perKgWater), m_waterPerKg(waterPerKg) {
  m_conditions.temperature = temperature;
  addCandidates();
  m_known = look(1);
  if (!m_known) return;
  climb();
  refine();
  std::vector<std::size_t> order(m_solids.size());
  std::iota(order.begin(), order.end(), 0u);
  for (const auto i : order) {
    const auto at = lnMultipleAtSaturation(m_candidates[i].seen);
    m_solids[i].saturation = at ? std::exp(-*at) : 0;
  }
  std::stable_sort(order.begin(), order.end(),
                   [&](auto a, auto b) { return m_solids[a].saturation > m_solids[b].saturation; });
  std::vector<TankSolid> solids;
  std::vector<Candidate> candidates;
  for (const auto i : order) {
    if (m_solids[i].saturation < leastWorthNaming) continue;
    solids.push_back(m_solids[i]);
    candidates.push_back(m_candidates[i]);
  }
  m_solids = std::move(solids);
  m_candidates = std::move(candidates);
}

Solutes TankChemistry::atMultiple(double multiple) const {
  Solutes sum = m_perKg.scaled(multiple);
  sum.addScaled(m_waterPerKg, 1);
  return sum;
}

void TankChemistry::addCandidates() {
  const double celsius = m_conditions.temperature.celsius();
  if (!(celsius >= 0 && celsius <= 45)) return;
  const auto all = atMultiple(1);
  const auto present = [&](const Stoichiometry& solid) {
    return std::all_of(solid.components.begin(), solid.components.end(),
                       [&](const auto& part) { return all.mol[part.first] > 0; });
  };
  const auto& constants = conditionalSolubility(m_conditions.temperature);
  for (std::size_t i = 0; i < saltSolids().size(); ++i) {
    const auto& salt = saltSolids()[i];
    if (!constants[i] || !present(salt.dissolved)) continue;
    m_candidates.push_back({{salt.dissolved, *constants[i]}, {}});
    m_solids.push_back({salt.name, i});
  }
  const auto& data = EquilibriumData::instance();
  const auto& at = data.at(m_conditions.temperature);
  for (std::size_t i = 0; i < data.solids().size(); ++i) {
    const auto& solid = data.solids()[i];
    if (!formsSoon(solid.formsWithin) || !present(solid.dissolved)) continue;
    m_candidates.push_back({{solid.dissolved, at.lnSolubility[i]}, {}});
    m_solids.push_back({solid.name, std::nullopt, solid.formsWithin});
  }
}

/// Settles the tank at a multiple of its strength and notes where each solid stands.
bool TankChemistry::look(double multiple) {
  const auto totals = atMultiple(multiple);
  const auto start = m_path.expected(std::log(multiple), totals);
  auto conditions = m_conditions;
  conditions.start = start ? &*start : nullptr;
  conditions.lastStep = lastStepForSaturation;
  auto settled = equilibrate(totals, conditions);
  if (!settled) return false;
  if (multiple == 1) m_ph = settled->ph;
  for (auto& candidate : m_candidates) {
    const double ln = settled->lnIonProduct(candidate.phase.dissolved) - candidate.phase.lnSolubilityProduct;
    const SaturationSeen point{std::log(multiple), ln};
    candidate.seen.insert(std::lower_bound(candidate.seen.begin(), candidate.seen.end(), point), point);
  }
  m_path.add(std::log(multiple), std::move(settled).value());
  return true;
}

/// Doubles the strength until a solid is passed, or halves it until all are dissolved.
void TankChemistry::climb() {
  const auto anyPassed = [&](bool strongest) {
    return std::any_of(m_candidates.begin(), m_candidates.end(), [&](const Candidate& c) {
      return (strongest ? c.seen.back() : c.seen.front()).isReached();
    });
  };
  const double own = solutesIn(m_perKg);
  for (double multiple = 2; multiple * own <= mostSolutes && multiple < 1e6; multiple *= 2) {
    // Always some way up, so that those that are not the nearest have a slope to be judged by.
    if ((multiple > leastLookUp && anyPassed(true)) || !look(multiple)) break;
  }
  for (double multiple = 0.5; anyPassed(false) && multiple > 1e-5; multiple *= 0.5) {
    if (!look(multiple)) break;
  }
}

/// The nearest solids exactly: curves through the nearest looks, to the strength at which each is just
/// saturated.
void TankChemistry::refine() {
  std::vector<std::size_t> order(m_candidates.size());
  std::iota(order.begin(), order.end(), 0u);
  std::stable_sort(order.begin(), order.end(), [&](auto a, auto b) {
    return lnMultipleAtSaturation(m_candidates[a].seen).value_or(1e9) <
           lnMultipleAtSaturation(m_candidates[b].seen).value_or(1e9);
  });
  if (order.size() > 2) order.resize(2);
  for (const auto i : order) {
    for (int n = 0; n < mostRefinements; ++n) {
      const auto at = lnMultipleAtSaturation(m_candidates[i].seen);
      if (!at || m_path.knows(*at) || *at > std::log(mostSolutes / std::max(solutesIn(m_perKg), 1e-9)) ||
          !look(std::exp(*at)))
        break;
      const auto& seen = m_candidates[i].seen;
      const bool near = std::any_of(seen.begin(), seen.end(), [](const SaturationSeen& point) {
        return std::abs(point.lnSaturation) < nearEnough;
      });
      if (near) break;
    }
  }
}

bool TankChemistry::findAmounts(double waterKgPerLitre) {
  if (m_solids.empty() || m_solids.front().saturation <= 1) return true;
  auto conditions = m_conditions;
  for (const auto& candidate : m_candidates)
    conditions.solids.push_back(candidate.phase);
  const auto settled = equilibrate(atMultiple(1), conditions);
  if (!settled) return false;
  const auto& data = EquilibriumData::instance();
  for (std::size_t i = 0; i < m_solids.size(); ++i) {
    auto& solid = m_solids[i];
    const double molarMass = solid.salt ? saltSolids()[*solid.salt].formula.molarMassGPerMol
                                        : data.solids()[*data.solidIndex(solid.name)].molarMassGPerMol;
    solid.molPerLitre = settled->solidMol[i] * waterKgPerLitre;
    solid.gramsPerLitre = solid.molPerLitre * molarMass;
  }
  return true;
}

namespace {

const Stoichiometry& stoichiometryOf(const TankSolid& solid) {
  const auto& data = EquilibriumData::instance();
  return solid.salt ? saltSolids()[*solid.salt].dissolved
                    : data.solids()[*data.solidIndex(solid.name)].dissolved;
}

} // namespace

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
