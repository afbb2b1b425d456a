#include "solution/mass_action.h"

#include <algorithm>
#include <cassert>
#include <cmath>
#include <limits>

namespace butte::core {
namespace {

constexpr double ln10 = 2.302585092994046;
constexpr double smallestTotal = 1e-18; // mol/kg; less is nothing

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
double MassAction::reduce(const Stoichiometry& s, Vector& row) const {
  row = Vector::Zero(m_n);
  double hydrogen = s.hydrogen, held = 0;
  for (const auto& [component, power] : s.components) {
    if (m_lnCarbonateGas && allComponents[component] == Component::Carbonate) {
      held += power * *m_lnCarbonateGas;
      hydrogen -= 2 * power;
    } else if (const int unknown = m_unknownOf[component]; unknown >= 0) {
      row[unknown] += power;
    } else if (power != 0) {
      return std::numeric_limits<double>::quiet_NaN();
    }
  }
  if (m_lnHydrogen)
    held += hydrogen * *m_lnHydrogen;
  else
    row[m_hydrogenUnknown] += hydrogen;
  return held;
}

/// Open to a gas, water takes part in what the gas makes: CO3 H^2 = p K a(H2O).
double MassAction::waterIn(const Stoichiometry& s) const {
  double water = s.water;
  for (const auto& [component, power] : s.components) {
    if (m_lnCarbonateGas && allComponents[component] == Component::Carbonate) water += power;
  }
  return water;
}

void MassAction::buildSpecies() {
  const auto& lnK = m_data.at(m_conditions.temperature).lnFormation;
  ComponentSet there;
  for (std::size_t i = 0; i < componentCount; ++i)
    there[i] = m_unknownOf[i] >= 0;
  if (m_lnCarbonateGas) there.set(static_cast<std::size_t>(Component::Carbonate));
  std::vector<std::size_t> kindHere(m_data.activityKinds().size(), m_data.activityKinds().size());
  m_species.reserve(lnK.size());
  Vector row;
  for (std::size_t i = 0; i < m_data.species().size(); ++i) {
    const auto& record = m_data.species()[i];
    if ((record.parts & ~there).any()) continue;
    const double held = reduce(record.made, row);
    Active a{i, lnK[i] + held, waterIn(record.made), {}};
    for (int u = 0; u < m_n; ++u) {
      if (row[u] == 0) continue;
      assert(static_cast<std::size_t>(a.termCount) < a.terms.size() &&
             "a species of more parts than Active holds");
      a.terms[static_cast<std::size_t>(a.termCount++)] = {u, row[u]};
    }
    a.halfSquaredCharge = 0.5 * record.charge * record.charge;
    auto& kind = kindHere[record.activityKind];
    if (kind == kindHere.size()) {
      kind = m_kinds.size();
      m_kinds.push_back(m_data.activityKinds()[record.activityKind]);
    }
    a.kind = kind;
    m_species.push_back(a);
  }
  m_coefficients.resize(m_kinds.size());
  m_molality.resize(static_cast<Eigen::Index>(m_species.size()));
  m_lnMolality.resize(m_molality.size());
}

void MassAction::buildSolids() {
  m_solids.reserve(m_conditions.solids.size());
  for (const auto& solid : m_conditions.solids) {
    Held held;
    const double part = reduce(solid.dissolved, held.row);
    held.possible = !std::isnan(part);
    held.lnK = solid.lnSolubilityProduct - part;
    held.water = waterIn(solid.dissolved);
    m_solids.push_back(held);
  }
}

std::optional<double> MassAction::lnSaturation(std::size_t solid) const {
  const auto& s = m_solids[solid];
  if (!s.possible) return std::nullopt;
  double ln = s.water * m_lnWater - s.lnK;
  for (int u = 0; u < m_n; ++u)
    ln += s.row[u] * m_x[u];
  return ln;
}

Equilibrium MassAction::result() const {
  Equilibrium out;
  out.given = m_totals;
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
  for (std::size_t i = 0; i < m_species.size(); ++i) {
    const double molality = m_molality[static_cast<Eigen::Index>(i)];
    out.molality[m_species[i].record] = molality;
    const auto& made = m_data.species()[m_species[i].record].made;
    hydrogen += made.hydrogen * molality;
    for (const auto& [component, power] : made.components) {
      if (component == carbonate) out.carbonateMol += power * molality;
    }
  }
  Solutes reached = m_totals;
  reached.of(Component::Carbonate) = out.carbonateMol;
  out.alkalinityEq = m_lnHydrogen ? referenceHydrogen(reached) - hydrogen : m_totals.alkalinityEq;
  out.iterations = m_iterations;
  return out;
}

} // namespace butte::core
