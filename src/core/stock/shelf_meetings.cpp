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
      m_factor(std::max(plan.factor, leastReferenceFactor)), m_concentrates(shelf.size()),
      m_asked(shelf.size() * shelf.size()) {}

/// What a product would be in a concentrate at the reference strength.
const Concentrate& ShelfMeetings::concentrate(std::size_t product) {
  auto& place = m_concentrates[product];
  if (place) return *place;
  const auto& p = m_shelf[product];
  const double kg = StockWater(p, m_feed[product], m_temperature).kgPerLitre(m_factor);
  return place.emplace(p.composition.solutesPerGram.scaled(m_feed[product].gramsPerLitre() * m_factor /
                                                           std::max(kg, leastWaterKgPerLitre)),
                       m_temperature);
}

bool ShelfMeetings::takesPart(std::size_t product) const {
  return m_feed[product] > Concentration{} && !isAcidOrBase(m_shelf[product]);
}

const Meeting* ShelfMeetings::between(std::size_t a, std::size_t b) {
  if (!takesPart(a) || !takesPart(b)) return nullptr;
  const auto [first, second] = std::minmax(a, b);
  int& asked = m_asked[first * m_shelf.size() + second];
  if (asked == 0) {
    asked = -1;
    if (auto meeting = meetingOf(concentrate(first), concentrate(second))) {
      m_found.push_back(*std::move(meeting));
      asked = static_cast<int>(m_found.size());
    }
  }
  return asked > 0 ? &m_found[static_cast<std::size_t>(asked - 1)] : nullptr;
}

std::optional<Meeting> ShelfMeetings::within(std::size_t product) {
  return meetingWithin(concentrate(product));
}

} // namespace butte::core
