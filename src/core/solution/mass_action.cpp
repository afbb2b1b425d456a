#include "solution/mass_action.h"

#include <algorithm>
#include <cassert>
#include <cmath>
#include <limits>

namespace butte::core {
namespace {

constexpr double ln10 = 2.302585092994046;
constexpr double smallestTotal = 1e-18; // mol/kg; less is nothing
constexpr double waterPerSolute =
    0.017; // fall of the water's activity per mol/kg (PHREEQC's rule, from memory)
constexpr double leastWater = 0.3;

/// Hydrogen ions in the form that alkalinity is counted against: CO2, H2PO4-, whole citric and acetic acid.
double referenceHydrogen(const Solutes& s) {
  return 2 * s.of(Component::Carbonate) + 2 * s.of(Component::Phosphate) + 3 * s.of(Component::Citrate) +
         s.of(Component::Acetate);
}

} // namespace

MassAction::MassAction(const Solutes& totals, const EquilibriumConditions& conditions)
    : m_data(EquilibriumData::instance()), m_totals(totals), m_conditions(conditions),
      m_activity(conditions.temperature.celsius()) {
  if (conditions.ph) m_lnHydrogen = -*conditions.ph * ln10;
  if (conditions.carbonDioxideAtm)
    m_lnCarbonateGas =
        m_data.at(conditions.temperature).lnCarbonDioxideGas + std::log(*conditions.carbonDioxideAtm);
  for (std::size_t i = 0; i < totals.chelateMol.size(); ++i) {
    const double z = static_cast<double>(i + 1);
    m_inertStrength += 0.5 * z * z * totals.chelateMol[i];
    m_inertMol += totals.chelateMol[i];
  }
  chooseUnknowns();
  buildSpecies();
  buildSolids();
  start();
}

void MassAction::chooseUnknowns() {
  m_unknownOf.fill(-1);
  for (const auto c : allComponents) {
    const auto i = static_cast<std::size_t>(c);
    if (c == Component::Carbonate && m_lnCarbonateGas) continue;
    if (m_totals.mol[i] > smallestTotal) m_unknownOf[i] = m_n++;
  }
  if (!m_lnHydrogen) m_hydrogenUnknown = m_n++;
  m_target = Vector::Zero(m_n);
  for (std::size_t i = 0; i < componentCount; ++i) {
    if (m_unknownOf[i] >= 0) m_target[m_unknownOf[i]] = m_totals.mol[i];
  }
  if (m_hydrogenUnknown < 0) return;
  double hydrogen = referenceHydrogen(m_totals) - m_totals.alkalinityEq;
  if (m_lnCarbonateGas) hydrogen -= 2 * m_totals.of(Component::Carbonate);
  m_target[m_hydrogenUnknown] = hydrogen;
}

/// Writes the stoichiometry over the unknowns into `row`; returns the part of ln that held activities make.
/// NaN when a component is missing.
double MassAction::reduce(const Stoichiometry& s, std::vector<double>& row) const {
  row.assign(static_cast<std::size_t>(m_n), 0.0);
  double hydrogen = s.hydrogen, held = 0;
  for (const auto& [component, power] : s.components) {
    if (m_lnCarbonateGas && allComponents[component] == Component::Carbonate) {
      held += power * *m_lnCarbonateGas;
      hydrogen -= 2 * power;
    } else if (const int unknown = m_unknownOf[component]; unknown >= 0) {
      row[static_cast<std::size_t>(unknown)] += power;
    } else if (power != 0) {
      return std::numeric_limits<double>::quiet_NaN();
    }
  }
  if (m_lnHydrogen)
    held += hydrogen * *m_lnHydrogen;
  else
    row[static_cast<std::size_t>(m_hydrogenUnknown)] += hydrogen;
  return held;
}

void MassAction::buildSpecies() {
  const auto& lnK = m_data.at(m_conditions.temperature).lnFormation;
  m_species.reserve(lnK.size());
  std::vector<double> row;
  for (std::size_t i = 0; i < m_data.species().size(); ++i) {
    const auto& record = m_data.species()[i];
    const double held = reduce(record.made, row);
    if (std::isnan(held)) continue;
    Active a{i, lnK[i] + held, record.made.water, {}};
    // Open to a gas, water takes part in what the gas makes: CO3 H^2 = p K a(H2O).
    for (const auto& [component, power] : record.made.components) {
      if (m_lnCarbonateGas && allComponents[component] == Component::Carbonate) a.water += power;
    }
    for (int u = 0; u < m_n; ++u) {
      if (const double power = row[static_cast<std::size_t>(u)]; power != 0) {
        assert(static_cast<std::size_t>(a.termCount) < a.terms.size() &&
               "a species of more parts than Active holds");
        a.terms[static_cast<std::size_t>(a.termCount++)] = {u, power};
      }
    }
    a.z2 = record.charge * record.charge;
    m_species.push_back(a);
  }
}

void MassAction::buildSolids() {
  for (const auto& solid : m_conditions.solids) {
    Held held;
    const double part = reduce(solid.dissolved, held.row);
    held.possible = !std::isnan(part);
    held.lnK = solid.lnSolubilityProduct - part;
    held.water = solid.dissolved.water;
    for (const auto& [component, power] : solid.dissolved.components) {
      if (m_lnCarbonateGas && allComponents[component] == Component::Carbonate) held.water += power;
    }
    m_solids.push_back(std::move(held));
  }
}

/// Balance of hydrogen without ion pairs at this pH, each component shared among its own acids; fills the
/// matching logarithms.
double MassAction::hydrogenExcess(double lnHydrogen, Vector* x) const {
  Vector share = Vector::Zero(m_n), hydrogen = Vector::Zero(m_n);
  double own = 0;
  for (const auto& s : m_species) {
    int component = -1;
    double power = 0, hydrogenPower = 0;
    bool pair = false;
    for (int t = 0; t < s.termCount; ++t) {
      const auto& term = s.terms[static_cast<std::size_t>(t)];
      if (term.unknown == m_hydrogenUnknown) {
        hydrogenPower = term.power;
      } else {
        pair |= component >= 0;
        component = term.unknown;
        power = term.power;
      }
    }
    if (pair || (component >= 0 && power != 1)) continue;
    const double amount = std::exp(std::min(s.lnK + hydrogenPower * lnHydrogen - s.lnGamma, 600.0));
    if (component < 0) {
      own += hydrogenPower * amount;
    } else {
      share[component] += amount;
      hydrogen[component] += hydrogenPower * amount;
    }
  }
  double sum = own;
  for (int u = 0; u < m_n; ++u) {
    if (u == m_hydrogenUnknown) {
      if (x) (*x)[u] = lnHydrogen;
      continue;
    }
    if (x) (*x)[u] = std::log(m_target[u] / share[u]);
    sum += m_target[u] * hydrogen[u] / share[u];
  }
  return m_hydrogenUnknown < 0 ? 0 : sum - m_target[m_hydrogenUnknown];
}

void MassAction::start() {
  m_strength = m_inertStrength;
  for (std::size_t i = 0; i < componentCount; ++i) {
    const double z = std::min(2, std::abs(m_data.species()[m_data.speciesOf(allComponents[i])].charge));
    m_strength += 0.4 * z * z * m_totals.mol[i];
  }
  updateGammas();
  m_x = Vector::Zero(m_n);
  if (takeStart()) return;
  double low = -15 * ln10, high = 1 * ln10; // pH 15 down to -1
  for (int i = 0; i < 16 && m_hydrogenUnknown >= 0; ++i) {
    const double middle = 0.5 * (low + high);
    (hydrogenExcess(middle, nullptr) < 0 ? low : high) = middle;
  }
  hydrogenExcess(0.5 * (low + high), &m_x);
}

/// The state of a like solution, where it holds all that this one holds.
bool MassAction::takeStart() {
  const auto* from = m_conditions.start;
  if (!from) return false;
  for (std::size_t i = 0; i < componentCount; ++i) {
    if (m_unknownOf[i] < 0) continue;
    if (!std::isfinite(from->lnActivity[i])) return false;
    m_x[m_unknownOf[i]] = from->lnActivity[i];
  }
  if (m_hydrogenUnknown >= 0) m_x[m_hydrogenUnknown] = from->lnHydrogen;
  m_strength = std::max(from->ionicStrength, 1e-9);
  m_near = true;
  return true;
}

void MassAction::updateGammas() {
  for (auto& s : m_species) {
    const auto& r = m_data.species()[s.record];
    s.lnGamma = m_activity.lnGamma(r.charge, r.sizeAngstrom, r.linearTerm, m_strength);
    s.slope = m_activity.lnGammaSlope(r.charge, r.sizeAngstrom, r.linearTerm, m_strength);
  }
}

void MassAction::updateMolalities(const Vector& x) {
  for (auto& s : m_species) {
    double ln = s.lnK + s.water * m_lnWater - s.lnGamma;
    for (int t = 0; t < s.termCount; ++t)
      ln += s.terms[static_cast<std::size_t>(t)].power * x[s.terms[static_cast<std::size_t>(t)].unknown];
    s.molality = std::exp(std::min(ln, 600.0));
  }
}

double MassAction::potential(const Vector& x) {
  updateMolalities(x);
  double sum = -m_target.dot(x);
  for (const auto& s : m_species)
    sum += s.molality;
  return sum;
}

double MassAction::strengthFound() const {
  double sum = m_inertStrength;
  for (const auto& s : m_species)
    sum += 0.5 * s.z2 * s.molality;
  return sum;
}

void MassAction::updateWater() {
  double solutes = m_inertMol;
  for (const auto& s : m_species)
    solutes += s.molality;
  m_lnWater = std::log(std::max(1 - waterPerSolute * solutes, leastWater));
}

std::optional<double> MassAction::lnSaturation(std::size_t solid) const {
  const auto& s = m_solids[solid];
  if (!s.possible) return std::nullopt;
  double ln = s.water * m_lnWater - s.lnK;
  for (int u = 0; u < m_n; ++u)
    ln += s.row[static_cast<std::size_t>(u)] * m_x[u];
  return ln;
}

Equilibrium MassAction::result() const {
  Equilibrium out;
  out.lnHydrogen = m_lnHydrogen ? *m_lnHydrogen : m_x[m_hydrogenUnknown];
  out.ph = -out.lnHydrogen / ln10;
  out.ionicStrength = m_strength;
  out.waterActivity = std::exp(m_lnWater);
  out.lnActivity.assign(componentCount, -std::numeric_limits<double>::infinity());
  for (std::size_t i = 0; i < componentCount; ++i) {
    if (m_unknownOf[i] >= 0) out.lnActivity[i] = m_x[m_unknownOf[i]];
  }
  if (m_lnCarbonateGas)
    out.lnActivity[static_cast<std::size_t>(Component::Carbonate)] =
        *m_lnCarbonateGas + m_lnWater - 2 * out.lnHydrogen;
  out.molality.assign(m_data.species().size(), 0.0);
  double hydrogen = 0;
  constexpr auto carbonate = static_cast<std::size_t>(Component::Carbonate);
  for (const auto& s : m_species) {
    out.molality[s.record] = s.molality;
    const auto& made = m_data.species()[s.record].made;
    hydrogen += made.hydrogen * s.molality;
    for (const auto& [component, power] : made.components) {
      if (component == carbonate) out.carbonateMol += power * s.molality;
    }
  }
  Solutes reached = m_totals;
  reached.of(Component::Carbonate) = out.carbonateMol;
  out.alkalinityEq = m_lnHydrogen ? referenceHydrogen(reached) - hydrogen : m_totals.alkalinityEq;
  out.iterations = m_iterations;
  return out;
}

} // namespace butte::core
