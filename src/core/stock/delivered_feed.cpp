#include "stock/delivered_feed.h"

#include "solution/conductivity.h"
#include "stock/component_nutrients.h"

namespace butte::core {
namespace {

EquilibriumConditions conditionsOf(const MixResult& water) {
  EquilibriumConditions conditions;
  conditions.temperature = water.temperature;
  return conditions;
}

} // namespace

Delivery::Delivery(const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& grams, Volume batch,
                   const StockAnswer& stock, const MixResult& water)
    : m_water(water) {
  for (const auto& content : stock.tanks) {
    Part part;
    Solutes salts;
    for (const auto& item : content.items) {
      const double gramsPerLitre = item.strength.gramsPerLitre() / content.factor;
      part.milligramsPerLitre.addScaled(shelf[item.product].composition.massFraction, gramsPerLitre * 1000);
      salts.addScaled(shelf[item.product].composition.solutesPerGram, gramsPerLitre);
    }
    part.milligramsPerLitre.addScaled(content.lostMgPerLitreOfFeed, -1);
    const auto makeUp = nutrientsIn(content.tank.makeUpPerLitre);
    part.milligramsPerLitre.addScaled(makeUp, 1000 * content.waterKgPerLitre / content.factor);
    part.solutesPerLitre = content.dissolvedPerLitre.scaled(1 / content.factor);
    m_tanks.push_back(part);
  }
  for (const auto j : stock.notPlaced) {
    const auto feed = grams[j] / batch;
    m_apart.milligramsPerLitre.addScaled(shelf[j].composition.massFraction, feed.milligramsPerLitre());
    m_apart.solutesPerLitre.addScaled(shelf[j].composition.solutesPerGram, feed.gramsPerLitre());
  }
}

Delivery::Part Delivery::sum(const std::vector<double>& draws, double apart) const {
  Part out{m_water.milligramsPerLitre, m_water.solutesPerLitre};
  const auto add = [&](const Part& part, double times) {
    out.milligramsPerLitre.addScaled(part.milligramsPerLitre, times);
    out.solutesPerLitre.addScaled(part.solutesPerLitre, times);
  };
  for (std::size_t t = 0; t < m_tanks.size(); ++t)
    add(m_tanks[t], t < draws.size() ? draws[t] : 1);
  add(m_apart, apart);
  return out;
}

Conductivity Delivery::conductivityOf(const Part& part) const {
  const auto at25 = conductivityAt25(part.solutesPerLitre, m_water.waterKgPerLitre, conditionsOf(m_water));
  if (!at25)
    return conductivityByRule(ionBalance(part.milligramsPerLitre, part.solutesPerLitre.alkalinityEq * 1000));
  // A water known by its EC only shows on the meter without a solute that says so.
  const bool unknownBase = !m_water.ph && m_water.solutesPerLitre.mol == Solutes{}.mol;
  return unknownBase ? *at25 + m_water.conductivity : *at25;
}

Conductivity Delivery::conductivity(const std::vector<double>& draws, double apart) const {
  return conductivityOf(sum(draws, apart));
}

DeliveredFeed Delivery::feed(const std::vector<double>& draws, double apart) const {
  const auto part = sum(draws, apart);
  DeliveredFeed out{part.milligramsPerLitre, part.solutesPerLitre, conductivityOf(part), std::nullopt};
  if (!m_water.ph) return out;
  if (const auto settled =
          equilibrate(part.solutesPerLitre.scaled(1 / m_water.waterKgPerLitre), conditionsOf(m_water)))
    out.ph = settled->ph;
  return out;
}

std::optional<SetpointFeed> atSetpoint(const Delivery& delivery, const std::vector<double>& draws,
                                       Conductivity setpoint) {
  constexpr double mostStrength = 1000;
  const auto times = [&](double strength) {
    auto scaled = draws;
    for (auto& draw : scaled)
      draw *= strength;
    return scaled;
  };
  double low = 0, high = 1;
  if (delivery.conductivity(times(low)) > setpoint) return std::nullopt;
  while (delivery.conductivity(times(high)) < setpoint) {
    if (high > mostStrength) return std::nullopt;
    high *= 2;
  }
  for (int i = 0; i < 40; ++i) {
    const double middle = 0.5 * (low + high);
    (delivery.conductivity(times(middle)) < setpoint ? low : high) = middle;
  }
  return SetpointFeed{high, delivery.feed(times(high))};
}

} // namespace butte::core
