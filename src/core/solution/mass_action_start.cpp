/// Where the iteration of MassAction starts: from a like solution, or from each component shared out among
/// its own acids.
#include "solution/mass_action.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

constexpr double ln10 = 2.302585092994046;
constexpr double highestPh = 15, lowestPh = -1;
constexpr int halvings = 10; // of that range: to a sixtieth of a pH, which Newton's steps take from there
constexpr int scalings = 2;  // a third spares no more steps

/// Ionic strength in mol/kg, the ions taken as free; larger charges count as two, since most of them is
/// bound.
double roughStrength(const Solutes& totals) {
  const auto& data = EquilibriumData::instance();
  double sum = 0;
  for (const auto c : allComponents) {
    const double z = std::min(2, std::abs(data.species()[data.speciesOf(c)].charge));
    sum += 0.4 * z * z * totals.of(c);
  }
  return sum;
}

double inertStrength(const Solutes& totals) {
  double sum = 0;
  for (std::size_t i = 0; i < totals.chelateMol.size(); ++i) {
    const double z = static_cast<double>(i + 1);
    sum += 0.5 * z * z * totals.chelateMol[i];
  }
  return sum;
}

} // namespace

void MassAction::start() {
  m_x = Vector::Zero(m_n);
  if (takeStart()) return;
  m_strength = m_inertStrength + roughStrength(m_totals);
  updateGammas();
  shareOut();
  scaleToTotals();
}

/// The state of a like solution, where it holds all that this one holds; each activity moved as the total
/// has.
bool MassAction::takeStart() {
  const auto* from = m_conditions.start;
  if (!from) return false;
  Solutes before = from->given;
  before.of(Component::Carbonate) = from->carbonateMol;
  for (std::size_t i = 0; i < componentCount; ++i) {
    if (m_unknownOf[i] < 0) continue;
    if (!std::isfinite(from->lnActivity[i]) || before.mol[i] <= 0) return false;
    m_x[m_unknownOf[i]] = from->lnActivity[i] + std::log(m_totals.mol[i] / before.mol[i]);
  }
  if (m_hydrogenUnknown >= 0) m_x[m_hydrogenUnknown] = from->lnHydrogen;
  const double rough = inertStrength(before) + roughStrength(before);
  m_strength = from->ionicStrength;
  if (rough > 0) m_strength *= (m_inertStrength + roughStrength(m_totals)) / rough;
  m_strength = std::max(m_strength, 1e-9);
  m_lnWater = std::log(from->waterActivity);
  return true;
}

/// A species made of one component alone, or of water, with or without hydrogen: how much of it there is at
/// hydrogen's activity 1 for each unit of the component's.
std::optional<MassAction::OwnForm> MassAction::ownForm(std::size_t species) const {
  const auto& s = m_species[species];
  OwnForm form{m_hydrogenUnknown, 0, s.lnK - m_coefficients[s.kind].lnGamma};
  bool componentSeen = false;
  for (int t = 0; t < s.termCount; ++t) {
    const auto& term = s.terms[static_cast<std::size_t>(t)];
    if (term.unknown == m_hydrogenUnknown) {
      form.hydrogen = term.power;
    } else {
      if (componentSeen || term.power != 1) return std::nullopt;
      componentSeen = true;
      form.unknown = term.unknown;
    }
  }
  return form;
}

/// Hydrogen found less that given, without ion pairs at this pH; fills each component's forms over its free
/// activity.
double MassAction::hydrogenExcess(const std::vector<OwnForm>& forms, double lnHydrogen, Vector& share) const {
  share = Vector::Zero(m_n);
  Vector hydrogen = Vector::Zero(m_n);
  double found = 0;
  for (const auto& form : forms) {
    const double amount = std::exp(std::min(form.lnShare + form.hydrogen * lnHydrogen, 600.0));
    if (form.unknown == m_hydrogenUnknown) {
      found += form.hydrogen * amount;
    } else {
      share[form.unknown] += amount;
      hydrogen[form.unknown] += form.hydrogen * amount;
    }
  }
  for (int u = 0; u < m_n; ++u) {
    if (u != m_hydrogenUnknown) found += m_target[u] * hydrogen[u] / share[u];
  }
  return m_hydrogenUnknown < 0 ? 0 : found - m_target[m_hydrogenUnknown];
}

/// The pH at which hydrogen balances without ion pairs, and each component among its own forms there.
void MassAction::shareOut() {
  std::vector<OwnForm> forms;
  for (std::size_t i = 0; i < m_species.size(); ++i) {
    if (const auto form = ownForm(i)) forms.push_back(*form);
  }
  double low = -highestPh * ln10, high = -lowestPh * ln10;
  Vector share;
  for (int i = 0; i < halvings && m_hydrogenUnknown >= 0; ++i) {
    const double middle = 0.5 * (low + high);
    (hydrogenExcess(forms, middle, share) < 0 ? low : high) = middle;
  }
  const double lnHydrogen = 0.5 * (low + high);
  hydrogenExcess(forms, lnHydrogen, share);
  for (int u = 0; u < m_n; ++u)
    m_x[u] = u == m_hydrogenUnknown ? lnHydrogen : std::log(m_target[u] / share[u]);
}

/// Ion pairs take their share: each component's activity moved by what it is found too much or too little.
void MassAction::scaleToTotals() {
  for (int pass = 0; pass < scalings; ++pass) {
    updateMolalities(m_x);
    Vector found = Vector::Zero(m_n);
    for (std::size_t i = 0; i < m_species.size(); ++i) {
      const auto& s = m_species[i];
      for (int t = 0; t < s.termCount; ++t) {
        const auto& term = s.terms[static_cast<std::size_t>(t)];
        found[term.unknown] += term.power * m_molality[static_cast<Eigen::Index>(i)];
      }
    }
    for (int u = 0; u < m_n; ++u) {
      if (u != m_hydrogenUnknown) m_x[u] += std::log(m_target[u] / found[u]);
    }
  }
  updateMolalities(m_x);
  m_strength = std::max(strengthFound(), 1e-9);
}

} // namespace butte::core
