#include "stock/tank_model.h"

#include "solution/water_properties.h"
#include "stock/salt_solids.h"
#include "stock/solubility.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>
#include <set>

namespace butte::core {
namespace {

constexpr double mostSolutesAsked = 30; // mol/kg

} // namespace

TankModel::TankModel(const std::vector<ShelfProduct>& shelf, std::vector<Concentration> atFactorOne,
                     const Solutes& makeUpPerLitre, Temperature temperature, double factor)
    : m_shelf(shelf), m_feed(std::move(atFactorOne)),
      m_makeUp(makeUpPerLitre.scaled(1 / waterDensityKgPerLitre)), m_water(shelf, m_feed), m_factor(factor),
      m_reference(referenceScale(factor)), m_chemistry(solutesAt(m_reference), temperature, m_makeUp),
      m_salts(saltsHeld()) {
  for (std::size_t j = 0; j < shelf.size(); ++j)
    m_critical.push_back(criticalScale(j, temperature));
  m_chemistry.findAmounts(water(factor));
}

std::optional<double> TankModel::saturation(std::size_t j) const {
  if (!m_critical[j]) return std::nullopt;
  return scale(m_factor) / *m_critical[j];
}

bool TankModel::fallsAtAnyStrength(const TankSolid& solid) const {
  constexpr auto carbonate = Component::Carbonate;
  const bool fromWaterOnly = m_makeUp.of(carbonate) > 0 && solutesAt(1).of(carbonate) <= 0;
  return fromWaterOnly && solid.saturation > 1 && m_chemistry.holds(solid, carbonate);
}

std::optional<TankModel::Ceiling> TankModel::ceiling() const {
  std::optional<Ceiling> out;
  double least = std::numeric_limits<double>::infinity();
  for (std::size_t j = 0; j < m_feed.size(); ++j) {
    if (!holds(j) || !m_critical[j] || (out && *m_critical[j] >= least)) continue;
    least = *m_critical[j];
    out = Ceiling{0, j, ""};
  }
  for (const auto& solid : m_chemistry.solids()) {
    const double critical = m_reference / solid.saturation;
    if (isProduct(solid) || fallsAtAnyStrength(solid) || critical >= least) continue;
    least = critical;
    out = Ceiling{0, std::nullopt, solid.name};
  }
  if (out) out->factor = factorAt(least);
  return out;
}

bool TankModel::isProduct(const TankSolid& solid) const {
  for (std::size_t j = 0; j < m_feed.size(); ++j) {
    if (solid.salt && holds(j) && m_salts[j] == solid.salt) return true;
  }
  return false;
}

std::vector<Fallen> TankModel::fallen() const {
  std::vector<Fallen> out;
  std::set<std::size_t> named;
  for (std::size_t j = 0; j < m_feed.size(); ++j) {
    if (!holds(j)) continue;
    const auto salt = m_salts[j];
    const auto own = saturation(j);
    if (!salt && own && *own > 1) {
      const double left = std::isfinite(*own) ? 1 / *own : 0;
      out.push_back({j, "", strength(j).gramsPerLitre() * (1 - left)});
    }
    if (!salt || !named.insert(*salt).second) continue;
    for (const auto& solid : m_chemistry.solids()) {
      if (solid.salt == salt && solid.gramsPerLitre > 0) out.push_back({j, "", solid.gramsPerLitre});
    }
  }
  for (const auto& solid : m_chemistry.solids()) {
    if (solid.gramsPerLitre > 0 && !(solid.salt && named.contains(*solid.salt)))
      out.push_back({std::nullopt, solid.name, solid.gramsPerLitre});
  }
  std::stable_sort(out.begin(), out.end(),
                   [](const Fallen& a, const Fallen& b) { return a.gramsPerLitre > b.gramsPerLitre; });
  return out;
}

Solutes TankModel::dissolvedPerLitre() const {
  Solutes sum = m_makeUp.scaled(std::max(0.0, water(m_factor)));
  for (std::size_t j = 0; j < m_feed.size(); ++j)
    sum.addScaled(m_shelf[j].composition.solutesPerGram, strength(j).gramsPerLitre());
  for (const auto& solid : m_chemistry.solids())
    sum.addScaled(m_chemistry.takenBy(solid), -1);
  return sum;
}

std::vector<std::optional<std::size_t>> TankModel::saltsHeld() const {
  std::vector<std::optional<std::size_t>> salts(m_feed.size());
  for (std::size_t j = 0; j < m_feed.size(); ++j) {
    const auto& formula = m_shelf[j].composition.formula;
    if (holds(j) && formula) salts[j] = saltSolidOf(*formula);
  }
  return salts;
}

double TankModel::scale(double factor) const {
  const double kg = water(factor);
  return kg > 0 ? factor / kg : std::numeric_limits<double>::infinity();
}

/// The plan's scale, or the strongest that the chemistry can be asked about.
double TankModel::referenceScale(double factor) const {
  double f = factor;
  while (!(scale(f) * solutesPerScale() <= mostSolutesAsked) && f > 1e-9)
    f /= 2;
  return scale(f);
}

Solutes TankModel::solutesAt(double scale) const {
  Solutes sum;
  for (std::size_t j = 0; j < m_feed.size(); ++j)
    sum.addScaled(m_shelf[j].composition.solutesPerGram, m_feed[j].gramsPerLitre() * scale);
  return sum;
}

double TankModel::solutesPerScale() const {
  const auto unit = solutesAt(1);
  return std::accumulate(unit.mol.begin(), unit.mol.end(), 0.0);
}

std::optional<double> TankModel::criticalScale(std::size_t j, Temperature temperature) const {
  const auto& formula = m_shelf[j].composition.formula;
  if (!formula || !holds(j)) return std::nullopt;
  const auto alone = anhydrousGramsPerKgWater(*formula, temperature);
  if (!alone) return std::nullopt;
  const auto salt = m_salts[j];
  if (!salt || !m_chemistry.known())
    return *alone / (m_feed[j].gramsPerLitre() * m_shelf[j].composition.anhydrousFraction);
  for (const auto& solid : m_chemistry.solids()) {
    if (solid.salt == salt) return m_reference / solid.saturation;
  }
  return std::numeric_limits<double>::infinity(); // out of reach
}

double TankModel::factorAt(double criticalScale) const {
  double low = 0, high = 1;
  while (scale(high) < criticalScale && high < 1e9)
    high *= 2;
  for (int i = 0; i < 60; ++i) {
    const double middle = 0.5 * (low + high);
    (scale(middle) < criticalScale ? low : high) = middle;
  }
  return low;
}

} // namespace butte::core
