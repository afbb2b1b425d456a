#include "solution/mass_action.h"

#include "units/constants.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace butte::core {
namespace {

constexpr double smallestTotal = 1e-18; // mol/kg; less is nothing

/// Hydrogen ions in the form that alkalinity is counted against: CO2, H2PO4-, whole citric and acetic acid.
double referenceHydrogen(const Solutes& s) {
  return 2 * s.of(Component::Carbonate) + 2 * s.of(Component::Phosphate) + 3 * s.of(Component::Citrate) +
         s.of(Component::Acetate);
}

ComponentSet componentsIn(const Solutes& totals) {
  ComponentSet there;
  for (std::size_t i = 0; i < componentCount; ++i)
    there[i] = totals.mol[i] > smallestTotal;
  return there;
}

HeldActivities heldBy(const EquilibriumConditions& conditions) {
  HeldActivities held;
  if (conditions.ph) held.lnHydrogen = -*conditions.ph * constant::ln10;
  if (conditions.carbonDioxideAtm)
    held.lnCarbonateGas = EquilibriumData::instance().at(conditions.temperature).lnCarbonDioxideGas +
                          std::log(*conditions.carbonDioxideAtm);
  return held;
}

} // namespace

MassAction::MassAction(const Solutes& totals, const EquilibriumConditions& conditions)
    : m_data(EquilibriumData::instance()), m_totals(totals), m_conditions(conditions),
      m_activity(conditions.temperature.celsius()),
      m_set(SpeciesSet::of(componentsIn(totals), heldBy(conditions), conditions.temperature)),
      m_n(m_set->unknowns()), m_coefficients(m_set->kinds().size()),
      m_lnMolality(static_cast<Eigen::Index>(m_set->species().size())), m_molality(m_lnMolality.size()) {
  for (std::size_t i = 0; i < totals.chelateMol.size(); ++i) {
    const double z = static_cast<double>(i + 1);
    m_inertStrength += 0.5 * z * z * totals.chelateMol[i];
    m_inertMol += totals.chelateMol[i];
  }
  setTarget();
  buildSolids();
  start();
}

void MassAction::setTarget() {
  m_target = Vector::Zero(m_n);
  for (std::size_t i = 0; i < componentCount; ++i) {
    if (const int unknown = m_set->unknownOf(i); unknown >= 0) m_target[unknown] = m_totals.mol[i];
  }
  if (m_set->hydrogenUnknown() < 0) return;
  double hydrogen = referenceHydrogen(m_totals) - m_totals.alkalinityEq;
  if (m_set->held().lnCarbonateGas) hydrogen -= 2 * m_totals.of(Component::Carbonate);
  m_target[m_set->hydrogenUnknown()] = hydrogen;
}

void MassAction::buildSolids() {
  m_solids.reserve(m_conditions.solids.size());
  for (const auto& solid : m_conditions.solids) {
    const auto reduced = m_set->reduce(solid.dissolved);
    m_solids.push_back({reduced.row, solid.lnSolubilityProduct - reduced.lnHeld, reduced.water,
                        !std::isnan(reduced.lnHeld)});
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
  const auto& held = m_set->held();
  Equilibrium out;
  out.given = m_totals;
  out.lnHydrogen = held.lnHydrogen ? *held.lnHydrogen : m_x[m_set->hydrogenUnknown()];
  out.ph = -out.lnHydrogen / constant::ln10;
  out.ionicStrength = m_strength;
  out.waterActivity = std::exp(m_lnWater);
  out.lnActivity.fill(-std::numeric_limits<double>::infinity());
  for (std::size_t i = 0; i < componentCount; ++i) {
    if (const int unknown = m_set->unknownOf(i); unknown >= 0) out.lnActivity[i] = m_x[unknown];
  }
  constexpr auto carbonate = static_cast<std::size_t>(Component::Carbonate);
  if (held.lnCarbonateGas) out.lnActivity[carbonate] = *held.lnCarbonateGas + m_lnWater - 2 * out.lnHydrogen;
  out.molality.assign(m_data.species().size(), 0.0);
  double hydrogen = 0, dissolvedCarbonate = 0;
  for (std::size_t i = 0; i < m_set->species().size(); ++i) {
    const double molality = m_molality[static_cast<Eigen::Index>(i)];
    const std::size_t record = m_set->species()[i].record;
    out.molality[record] = molality;
    const auto& made = m_data.species()[record].made;
    hydrogen += made.hydrogen * molality;
    for (const auto& [component, power] : made.components) {
      if (component == carbonate) dissolvedCarbonate += power * molality;
    }
  }
  out.carbonateMol = held.lnCarbonateGas ? dissolvedCarbonate : m_totals.of(Component::Carbonate);
  Solutes reached = m_totals;
  reached.of(Component::Carbonate) = dissolvedCarbonate;
  out.alkalinityEq = held.lnHydrogen ? referenceHydrogen(reached) - hydrogen : m_totals.alkalinityEq;
  out.iterations = m_iterations;
  return out;
}

} // namespace butte::core
