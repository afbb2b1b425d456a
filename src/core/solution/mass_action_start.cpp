/// Where the iteration of MassAction starts: from a like solution, or from each component shared out among
/// its own acids.
#include "solution/mass_action.h"

#include "units/constants.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

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

/// Whole powers of hydrogen's activity, as far as any form takes up or gives off.
class Powers {
public:
  explicit Powers(double activity) {
    m_values[most] = 1;
    for (int i = 1; i <= most; ++i) {
      m_values[static_cast<std::size_t>(most + i)] =
          m_values[static_cast<std::size_t>(most + i - 1)] * activity;
      m_values[static_cast<std::size_t>(most - i)] =
          m_values[static_cast<std::size_t>(most - i + 1)] / activity;
    }
  }
  double of(int power) const { return m_values[static_cast<std::size_t>(most + power)]; }

private:
  static constexpr int most = SpeciesSet::mostHydrogen;
  std::array<double, 2 * most + 1> m_values;
};

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
    const int unknown = m_set->unknownOf(i);
    if (unknown < 0) continue;
    if (!std::isfinite(from->lnActivity[i]) || before.mol[i] <= 0) return false;
    m_x[unknown] = from->lnActivity[i] + std::log(m_totals.mol[i] / before.mol[i]);
  }
  if (m_set->hydrogenUnknown() >= 0) m_x[m_set->hydrogenUnknown()] = from->lnHydrogen;
  const double rough = inertStrength(before) + roughStrength(before);
  m_strength = from->ionicStrength;
  if (rough > 0) m_strength *= (m_inertStrength + roughStrength(m_totals)) / rough;
  m_strength = std::max(m_strength, 1e-9);
  m_lnWater = std::log(from->waterActivity);
  return true;
}

/// Hydrogen found less that given, without ion pairs at this pH; fills each component's forms over its free
/// activity. `amounts` of the set's own forms: each at hydrogen's activity 1, over the component's.
double MassAction::hydrogenExcess(const std::vector<double>& amounts, double lnHydrogen,
                                  Vector& share) const {
  const int own = m_set->hydrogenUnknown();
  share = Vector::Zero(m_n);
  Vector hydrogen = Vector::Zero(m_n);
  double found = 0;
  const Powers powers(std::exp(lnHydrogen));
  for (std::size_t i = 0; i < amounts.size(); ++i) {
    const auto& form = m_set->ownForms()[i];
    const double amount = amounts[i] * powers.of(form.hydrogen);
    if (form.unknown == own) {
      found += form.hydrogen * amount;
    } else {
      share[form.unknown] += amount;
      hydrogen[form.unknown] += form.hydrogen * amount;
    }
  }
  for (int u = 0; u < m_n; ++u) {
    if (u != own) found += m_target[u] * hydrogen[u] / share[u];
  }
  return own < 0 ? 0 : found - m_target[own];
}

/// The pH at which hydrogen balances without ion pairs, and each component among its own forms there.
void MassAction::shareOut() {
  std::vector<double> amounts;
  amounts.reserve(m_set->ownForms().size());
  for (const auto& form : m_set->ownForms()) {
    const auto& s = m_set->species()[form.species];
    amounts.push_back(std::exp(std::min(s.lnK - m_coefficients[s.kind].lnGamma, mostLn)));
  }
  const int own = m_set->hydrogenUnknown();
  double low = -highestPh * constant::ln10, high = -lowestPh * constant::ln10;
  Vector share;
  for (int i = 0; i < halvings && own >= 0; ++i) {
    const double middle = 0.5 * (low + high);
    (hydrogenExcess(amounts, middle, share) < 0 ? low : high) = middle;
  }
  const double lnHydrogen = 0.5 * (low + high);
  hydrogenExcess(amounts, lnHydrogen, share);
  for (int u = 0; u < m_n; ++u)
    m_x[u] = u == own ? lnHydrogen : std::log(m_target[u] / share[u]);
}

/// Ion pairs take their share: each component's activity moved by what it is found too much or too little.
void MassAction::scaleToTotals() {
  for (int pass = 0; pass < scalings; ++pass) {
    updateMolalities(m_x);
    Vector found = Vector::Zero(m_n);
    for (std::size_t i = 0; i < m_set->species().size(); ++i) {
      const auto& s = m_set->species()[i];
      for (int t = 0; t < s.termCount; ++t) {
        const auto& term = s.terms[static_cast<std::size_t>(t)];
        found[term.unknown] += term.power * m_molality[static_cast<Eigen::Index>(i)];
      }
    }
    for (int u = 0; u < m_n; ++u) {
      if (u != m_set->hydrogenUnknown()) m_x[u] += std::log(m_target[u] / found[u]);
    }
  }
  updateMolalities(m_x);
  m_strength = std::max(strengthFound(), 1e-9);
}

} // namespace butte::core
