#include "tank/reservoir_chemistry.h"

#include "solution/equilibrium_data.h"

#include <algorithm>
#include <array>
#include <utility>

namespace butte::core {
namespace {

EquilibriumConditions conditionsOf(const ReservoirAir& air) {
  EquilibriumConditions out;
  out.temperature = air.temperature;
  out.carbonDioxideAtm = air.carbonDioxideAtm;
  return out;
}

/// The elements that solids of a feed hold, and the component that carries each.
constexpr std::array<std::pair<Component, Nutrient>, 12> carriers{{{Component::Na, Nutrient::Na},
                                                                   {Component::K, Nutrient::K},
                                                                   {Component::NH4, Nutrient::NAmmonium},
                                                                   {Component::Ca, Nutrient::Ca},
                                                                   {Component::Mg, Nutrient::Mg},
                                                                   {Component::SO4, Nutrient::S},
                                                                   {Component::Phosphate, Nutrient::P},
                                                                   {Component::Silicon, Nutrient::Si},
                                                                   {Component::Mn, Nutrient::Mn},
                                                                   {Component::Zn, Nutrient::Zn},
                                                                   {Component::Cu, Nutrient::Cu},
                                                                   {Component::Fe, Nutrient::Fe}}};

std::optional<Nutrient> elementOf(std::size_t component) {
  for (const auto& [carrier, nutrient] : carriers)
    if (static_cast<std::size_t>(carrier) == component) return nutrient;
  return std::nullopt;
}

} // namespace

Result<ReservoirReadings> readingsOf(const FeedContent& content, const ReservoirAir& air) {
  const auto perLitre = solutesPerLitre(content);
  const auto conditions = conditionsOf(air);
  const auto settled = equilibrate(perLitre.scaled(1 / feedWaterKgPerLitre), conditions);
  if (!settled) return settled.problem();
  auto from = conditions;
  from.start = &*settled;
  const auto at25 = conductivityAt25(perLitre, feedWaterKgPerLitre, from);
  if (!at25) return at25.problem();
  return ReservoirReadings{settled->ph, *at25};
}

ReservoirContent contentOfFloor(const FloorMillimoles& floor) {
  ReservoirContent out;
  const auto& solids = EquilibriumData::instance().solids();
  for (std::size_t i = 0; i < floor.size(); ++i) {
    if (floor[i] == 0) continue;
    Solutes dissolved;
    for (const auto& [component, count] : solids[i].dissolved.components) {
      dissolved.mol[component] += count;
      if (const auto nutrient = elementOf(component))
        out.milligrams.add(*nutrient, count * floor[i] * molarMass(*nutrient));
    }
    out.alkalinityMeq += dissolved.unbalancedEq() * floor[i]; // a whole salt: what acid it takes up
  }
  return out;
}

Result<SettledReservoir> settledReservoir(const ReservoirContent& content, const FloorMillimoles& floor,
                                          const ReservoirAir& air) {
  ReservoirContent all = content;
  const auto lying = contentOfFloor(floor);
  all.milligrams.addScaled(lying.milligrams, 1);
  all.alkalinityMeq += lying.alkalinityMeq;
  const auto perLitre = all.perLitre();
  if (!perLitre) return SettledReservoir{content, floor};
  const auto state = stateOf(solutesPerLitre(*perLitre), feedWaterKgPerLitre, conditionsOf(air));
  if (!state) return state.problem();
  SettledReservoir out{all, FloorMillimoles(EquilibriumData::instance().solids().size(), 0.0)};
  for (const auto& standing : state->solids)
    out.floor[standing.solid] = standing.gramsPerLitre /
                                EquilibriumData::instance().solids()[standing.solid].molarMassGPerMol * 1000 *
                                all.volume.litres();
  const auto fallen = contentOfFloor(out.floor);
  for (const auto n : keptNutrients)
    if (fallen.milligrams.of(n) > 0)
      out.content.milligrams.add(n, -std::min(fallen.milligrams.of(n), out.content.milligrams.of(n)));
  out.content.alkalinityMeq -= fallen.alkalinityMeq;
  return out;
}

} // namespace butte::core
