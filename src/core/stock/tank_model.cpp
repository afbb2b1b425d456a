#include "stock/tank_model.h"

#include "solution/water_properties.h"
#include "stock/crystal_form.h"
#include "stock/salt_solids.h"
#include "stock/solubility.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>
#include <set>

namespace butte::core {

TankModel::TankModel(const std::vector<ShelfProduct>& shelf, std::vector<Concentration> atFactorOne,
                     const Solutes& makeUpPerLitre, Temperature temperature, double factor)
    : m_shelf(shelf), m_feed(std::move(atFactorOne)),
      m_makeUp(makeUpPerLitre.scaled(1 / waterDensityKgPerLitre)), m_water(shelf, m_feed, temperature),
      m_factor(factor), m_chemistry(solutesAtScaleOne(), temperature, m_makeUp), m_salts(saltsHeld()) {
  standSolids();
  for (std::size_t j = 0; j < shelf.size(); ++j)
    m_critical.push_back(criticalFactor(j, temperature));
  findAmounts();
}

/// Where each solid in reach stands at this factor.
void TankModel::standSolids() {
  for (const auto& reach : m_chemistry.reaches()) {
    const double critical = m_water.factorAt(reach.criticalStrength);
    m_solids.push_back(reach.solid);
    m_solids.back().saturation = m_factor / critical;
    m_reachFactors.push_back(critical);
  }
}

std::optional<double> TankModel::ph() const {
  return m_chemistry.known() ? m_chemistry.phAt(scale()) : std::nullopt;
}

std::optional<double> TankModel::saturation(std::size_t j) const {
  if (!m_critical[j]) return std::nullopt;
  return m_factor / *m_critical[j];
}

bool TankModel::fallsAtAnyStrength(const TankSolid& solid) const {
  return std::isinf(solid.saturation);
}

std::optional<TankModel::Ceiling> TankModel::ceiling() const {
  std::optional<Ceiling> out;
  double least = std::numeric_limits<double>::infinity();
  for (std::size_t j = 0; j < m_feed.size(); ++j) {
    if (!holds(j) || !m_critical[j] || (out && *m_critical[j] >= least)) continue;
    least = *m_critical[j];
    out = Ceiling{least, j, ""};
  }
  for (std::size_t i = 0; i < m_solids.size(); ++i) {
    if (isProduct(m_solids[i]) || fallsAtAnyStrength(m_solids[i]) || m_reachFactors[i] >= least) continue;
    least = m_reachFactors[i];
    out = Ceiling{least, std::nullopt, m_solids[i].name};
  }
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
    if (!salt && own && *own > 1) out.push_back({j, "", strength(j).gramsPerLitre() * (1 - 1 / *own)});
    if (!salt || !named.insert(*salt).second) continue;
    for (const auto& solid : m_solids) {
      if (solid.salt == salt && solid.gramsPerLitre > 0) out.push_back({j, "", solid.gramsPerLitre});
    }
  }
  for (const auto& solid : m_solids) {
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
  for (const auto& solid : m_solids)
    sum.addScaled(m_chemistry.takenBy(solid), -1);
  return sum;
}

std::vector<std::optional<std::size_t>> TankModel::saltsHeld() const {
  std::vector<std::optional<std::size_t>> salts(m_feed.size());
  for (std::size_t j = 0; j < m_feed.size(); ++j) {
    if (!holds(j)) continue;
    if (const auto* form = crystalFormOf(m_shelf[j].composition)) salts[j] = saltSolidOf(*form);
  }
  return salts;
}

/// Infinite when the salts leave no water.
double TankModel::scale() const {
  const double kg = water(m_factor);
  return kg > 0 ? m_factor / kg : std::numeric_limits<double>::infinity();
}

Solutes TankModel::solutesAtScaleOne() const {
  Solutes sum;
  for (std::size_t j = 0; j < m_feed.size(); ++j)
    sum.addScaled(m_shelf[j].composition.solutesPerGram, m_feed[j].gramsPerLitre());
  return sum;
}

std::optional<double> TankModel::criticalFactor(std::size_t j, Temperature temperature) const {
  if (!holds(j)) return std::nullopt;
  const auto* form = crystalFormOf(m_shelf[j].composition);
  if (!form) return std::nullopt;
  const auto alone = anhydrousGramsPerKgWater(*form, temperature);
  if (!alone) return std::nullopt;
  const auto salt = m_salts[j];
  if (!salt || !m_chemistry.known())
    return m_water.factorAt(*alone /
                            (m_feed[j].gramsPerLitre() * waterFreeFractionOf(m_shelf[j].composition)));
  for (std::size_t i = 0; i < m_solids.size(); ++i) {
    if (m_solids[i].salt == salt) return m_reachFactors[i];
  }
  return std::numeric_limits<double>::infinity(); // out of reach
}

/// What lies on the floor of a tank that is too strong.
void TankModel::findAmounts() {
  if (m_solids.empty() || m_solids.front().saturation <= 1) return;
  const double kg = water(m_factor);
  const auto amounts = kg > 0 ? m_chemistry.fallenAt(m_factor / kg) : std::nullopt;
  const auto total = amounts ? std::accumulate(amounts->begin(), amounts->end(), 0.0) : 0.0;
  if (total > 0) {
    for (std::size_t i = 0; i < m_solids.size(); ++i)
      m_solids[i].molPerLitre = (*amounts)[i] * kg;
  } else {
    m_solids.front().molPerLitre = roughlyFallen(m_solids.front());
  }
  for (auto& solid : m_solids)
    solid.gramsPerLitre = solid.molPerLitre * m_chemistry.molarMass(solid);
}

/// Where not even the chemistry reaches (or its parameters turn round, far past their range): what is more
/// than could stay clear, of the ion that the solid runs out of first.
double TankModel::roughlyFallen(const TankSolid& solid) const {
  const auto all = solutesAtScaleOne().scaled(m_factor);
  auto one = solid;
  one.molPerLitre = 1;
  const auto taken = m_chemistry.takenBy(one);
  double most = std::numeric_limits<double>::infinity();
  for (std::size_t c = 0; c < componentCount; ++c) {
    if (taken.mol[c] > 0) most = std::min(most, all.mol[c] / taken.mol[c]);
  }
  return (1 - 1 / solid.saturation) * most;
}

} // namespace butte::core
