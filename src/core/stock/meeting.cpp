#include "stock/meeting.h"

#include "solution/equilibrium.h"
#include "solution/solution_state.h"

#include <algorithm>
#include <cmath>
#include <vector>

namespace butte::core {
namespace {

constexpr double movesPh = 1e-6; // eq/kg of alkalinity or acid: less leaves the other's pH as it is

bool holdsAll(const Solutes& s, const Stoichiometry& solid) {
  return std::all_of(solid.components.begin(), solid.components.end(),
                     [&](const auto& part) { return s.mol[part.first] > 0; });
}

/// Solids that could only come of the two together: for want of an ion in each, or since one moves the
/// other's pH.
std::vector<std::size_t> candidates(const Solutes& a, const Solutes& b, const Solutes& both) {
  std::vector<std::size_t> out;
  const auto& solids = EquilibriumData::instance().solids();
  const bool phMoves = std::abs(a.alkalinityEq) > movesPh || std::abs(b.alkalinityEq) > movesPh;
  for (std::size_t i = 0; i < solids.size(); ++i) {
    const auto& made = solids[i].dissolved;
    if (!formsSoon(solids[i].formsWithin) || !holdsAll(both, made)) continue;
    if (phMoves || (!holdsAll(a, made) && !holdsAll(b, made))) out.push_back(i);
  }
  return out;
}

std::optional<Meeting> worstOf(const Solutes& perKg, const std::vector<std::size_t>& solids,
                               Temperature temperature) {
  const auto& data = EquilibriumData::instance();
  const auto possible = [&](std::size_t i) { return holdsAll(perKg, data.solids()[i].dissolved); };
  if (std::none_of(solids.begin(), solids.end(), possible)) return std::nullopt;
  EquilibriumConditions conditions;
  conditions.temperature = temperature;
  const auto settled = equilibrate(perKg, conditions);
  if (!settled) return std::nullopt;
  const auto& at = data.at(temperature);
  std::optional<Meeting> worst;
  for (const auto i : solids) {
    const double index =
        (settled->lnIonProduct(data.solids()[i].dissolved) - at.lnSolubility[i]) / std::log(10.0);
    if (index > 0 && (!worst || index > worst->saturationIndex))
      worst = Meeting{data.solids()[i].name, index};
  }
  return worst;
}

} // namespace

std::optional<Meeting> meetingOf(const Solutes& a, const Solutes& b, Temperature temperature) {
  Solutes both = a;
  both.addScaled(b, 1);
  auto solids = candidates(a, b, both);
  while (!solids.empty()) {
    const auto worst = worstOf(both, solids, temperature);
    if (!worst) return std::nullopt;
    const auto index = *EquilibriumData::instance().solidIndex(worst->solid);
    if (!worstOf(a, {index}, temperature) && !worstOf(b, {index}, temperature)) return worst;
    std::erase(solids, index); // one of them drops it without the other's help
  }
  return std::nullopt;
}

std::optional<Meeting> meetingWithin(const Solutes& a, Temperature temperature) {
  std::vector<std::size_t> solids;
  const auto& all = EquilibriumData::instance().solids();
  for (std::size_t i = 0; i < all.size(); ++i) {
    if (formsSoon(all[i].formsWithin) && holdsAll(a, all[i].dissolved)) solids.push_back(i);
  }
  return worstOf(a, solids, temperature);
}

} // namespace butte::core
