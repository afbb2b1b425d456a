#pragma once
#include "stock/meeting.h"
#include "stock/stock.h"

#include <deque>
#include <optional>
#include <vector>

namespace butte::core {

/// Which products of a shelf may not meet in one concentrate, each pair asked of the equilibrium when it is
/// first wanted: a split needs few of them.
///
/// Among products with a feed strength, acids and bases aside, at the stronger of the plan's factor and 1:100
/// (so that a split stays right when the tanks are made stronger) and at its coldest temperature. All must
/// outlive the object.
class ShelfMeetings {
public:
  ShelfMeetings(const std::vector<ShelfProduct>& shelf, const std::vector<Concentration>& feed,
                const StockPlan& plan);

  /// What falls when the two meet; null where they may stand together.
  const Meeting* between(std::size_t a, std::size_t b);
  /// The same for what a product brings all by itself.
  std::optional<Meeting> within(std::size_t product);

private:
  const Concentrate& concentrate(std::size_t product);
  bool takesPart(std::size_t product) const;

  const std::vector<ShelfProduct>& m_shelf;
  const std::vector<Concentration>& m_feed;
  Temperature m_temperature;
  double m_factor;
  std::vector<std::optional<Concentrate>> m_concentrates;
  std::vector<int> m_asked; ///< by both indices: 0 not asked, -1 nothing, else one more than in m_found
  std::deque<Meeting> m_found;
};

} // namespace butte::core
