#include "stock/shelf_meetings.h"

#include "stock/stock_density.h"

#include <algorithm>

namespace butte::core {
namespace {

constexpr double leastReferenceFactor =
    100; // 1:100, the usual strength of a greenhouse's tanks (common practice)
constexpr double leastWaterKgPerLitre = 0.1; // denser than any concentrate: keeps a division honest

} // namespace

ShelfMeetings::ShelfMeetings(const std::vector<ShelfProduct>& shelf, const std::vector<Concentration>& feed,
                             const StockPlan& plan)
    : m_shelf(shelf), m_feed(feed), m_temperature(plan.temperature),
      m_factor(std::max(plan.factor, leastReferenceFactor)), m_concentrates(shelf.size()) {}

/// What a product would be in a concentrate at the reference strength, per kilogram of water.
Solutes ShelfMeetings::concentrateOf(std::size_t product) const {
  const double kg = StockWater({m_shelf[product]}, {m_feed[product]}).kgPerLitre(m_factor);
  return m_shelf[product].composition.solutesPerGram.scaled(m_feed[product].gramsPerLitre() * m_factor /
                                                            std::max(kg, leastWaterKgPerLitre));
}

const Solutes& ShelfMeetings::concentrate(std::size_t product) {
  auto& place = m_concentrates[product];
  if (!place) place = concentrateOf(product);
  return *place;
}

const std::optional<Meeting>& ShelfMeetings::between(std::size_t a, std::size_t b) {
  const std::pair<std::size_t, std::size_t> pair = std::minmax(a, b);
  const auto [it, isNew] = m_asked.try_emplace(pair);
  const auto takesPart = [&](std::size_t j) {
    return m_feed[j] > Concentration{} && !isAcidOrBase(m_shelf[j]);
  };
  if (isNew && takesPart(a) && takesPart(b))
    it->second = meetingOf(concentrate(pair.first), concentrate(pair.second), m_temperature);
  return it->second;
}

std::optional<Meeting> ShelfMeetings::within(std::size_t product) const {
  return meetingWithin(concentrateOf(product), m_temperature);
}

} // namespace butte::core
