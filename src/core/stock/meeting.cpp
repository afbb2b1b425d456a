#include "stock/meeting.h"

#include "solution/solution_state.h"

#include <algorithm>
#include <cmath>
#include <vector>

namespace butte::core {
namespace {

constexpr double movesPh = 1e-6; // eq/kg of alkalinity or acid: less leaves the other's pH as it is

bool isAcidOrAlkaline(const Concentrate& c) {
  return std::abs(c.perKgWater().alkalinityEq) > movesPh;
}

/// Indices into EquilibriumData::solids() of those that form within hours.
const std::vector<std::size_t>& soonForming() {
  static const std::vector<std::size_t> found = [] {
    std::vector<std::size_t> out;
    const auto& solids = EquilibriumData::instance().solids();
    for (std::size_t i = 0; i < solids.size(); ++i) {
      if (formsSoon(solids[i].formsWithin)) out.push_back(i);
    }
    return out;
  }();
  return found;
}

/// Solids that could only come of the two together: for want of an ion in each, or since one moves the
/// other's pH.
std::vector<std::size_t> candidates(const Concentrate& a, const Concentrate& b) {
  std::vector<std::size_t> out;
  const auto& solids = EquilibriumData::instance().solids();
  const bool phMoves = isAcidOrAlkaline(a) || isAcidOrAlkaline(b);
  const auto both = a.components() | b.components();
  for (const auto i : soonForming()) {
    const auto& parts = solids[i].parts;
    if ((parts & ~both).any()) continue;
    if (phMoves || (!a.holdsIonsOf(i) && !b.holdsIonsOf(i))) out.push_back(i);
  }
  return out;
}

bool drops(const Concentrate& c, std::size_t solid) {
  const auto index = c.saturationIndex(solid);
  return index && *index > 0;
}

/// Of these solids, the one that stands highest above its solubility.
std::optional<std::size_t> worstOf(const Concentrate& c, const std::vector<std::size_t>& solids) {
  std::optional<std::size_t> worst;
  for (const auto i : solids) {
    if (drops(c, i) && (!worst || *c.saturationIndex(i) > *c.saturationIndex(*worst))) worst = i;
  }
  return worst;
}

Meeting meetingAt(const Concentrate& c, std::size_t solid) {
  return {EquilibriumData::instance().solids()[solid].name, *c.saturationIndex(solid)};
}

} // namespace

Concentrate::Concentrate(const Solutes& perKgWater, Temperature temperature)
    : m_perKgWater(perKgWater), m_temperature(temperature) {
  for (std::size_t i = 0; i < componentCount; ++i)
    m_there[i] = perKgWater.mol[i] > 0;
}

bool Concentrate::holdsIonsOf(std::size_t solid) const {
  return (EquilibriumData::instance().solids()[solid].parts & ~m_there).none();
}

std::optional<double> Concentrate::saturationIndex(std::size_t solid) const {
  if (!holdsIonsOf(solid)) return std::nullopt;
  if (!m_settled) {
    EquilibriumConditions conditions;
    conditions.temperature = m_temperature;
    conditions.lastStep = lastStepForSaturation;
    m_settled = equilibrate(m_perKgWater, conditions);
  }
  if (!*m_settled) return std::nullopt;
  const auto& data = EquilibriumData::instance();
  const double ln = (*m_settled)->lnIonProduct(data.solids()[solid].dissolved);
  return (ln - data.at(m_temperature).lnSolubility[solid]) / std::log(10.0);
}

std::optional<Meeting> meetingOf(const Concentrate& a, const Concentrate& b) {
  auto solids = candidates(a, b);
  if (solids.empty()) return std::nullopt;
  Solutes sum = a.perKgWater();
  sum.addScaled(b.perKgWater(), 1);
  const Concentrate both(sum, a.temperature());
  while (const auto worst = worstOf(both, solids)) {
    if (!drops(a, *worst) && !drops(b, *worst)) return meetingAt(both, *worst);
    std::erase(solids, *worst); // one of them drops it without the other's help
  }
  return std::nullopt;
}

std::optional<Meeting> meetingWithin(const Concentrate& a) {
  const auto worst = worstOf(a, soonForming());
  return worst ? std::optional(meetingAt(a, *worst)) : std::nullopt;
}

} // namespace butte::core
