#include "shelf/shelf_account.h"

#include <algorithm>
#include <numeric>

namespace butte::core {

namespace {

class Keeper {
public:
  Keeper(const std::vector<ShelfLot>& lots, const std::vector<ShelfEvent>& events)
      : m_lots(lots), m_events(events), m_oldestFirst(lots.size()) {
    m_out.lots.resize(lots.size());
    std::iota(m_oldestFirst.begin(), m_oldestFirst.end(), std::size_t{0});
    std::stable_sort(m_oldestFirst.begin(), m_oldestFirst.end(), [&](std::size_t a, std::size_t b) {
      return lots[a].boughtAtSeconds < lots[b].boughtAtSeconds;
    });
    for (const auto lot : m_oldestFirst)
      m_byProduct[lots[lot].product].push_back(lot);
    for (std::size_t i = 0; i < lots.size(); ++i) {
      m_byId[lots[i].id] = i;
      m_out.lots[i].left = lots[i].bought();
    }
  }

  ShelfAccount keep() {
    std::vector<std::size_t> order(m_events.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
      return m_events[a].atSeconds < m_events[b].atSeconds;
    });
    for (const auto event : order)
      std::visit([&](const auto& what) { take(event, what); }, m_events[event].what);
    return std::move(m_out);
  }

private:
  /// Takes up to `wanted` out of a lot; gives what it had of it.
  Mass takeFrom(std::size_t lot, Mass wanted, UseAccount& use) {
    auto& state = m_out.lots[lot];
    const auto share = std::min(state.left, wanted);
    if (!(share > Mass{})) return {};
    state.left = state.left - share;
    state.used = state.used + share;
    state.lastUsedSeconds = m_events[use.event].atSeconds;
    use.from.push_back({lot, share});
    return share;
  }

  void take(std::size_t event, const shelved::Used& used) {
    UseAccount use;
    use.event = event;
    const auto found = m_byProduct.find(used.product);
    const auto& lots = found == m_byProduct.end() ? m_none : found->second;
    const auto at = m_events[event].atSeconds;
    const auto hadCome = [&](std::size_t lot) { return m_lots[lot].boughtAtSeconds <= at; };
    use.beforeFirstLot = std::none_of(lots.begin(), lots.end(), hadCome);
    auto missing = used.mass;
    for (const auto& from : used.from) {
      auto wanted = from.mass ? std::min(*from.mass, missing) : missing;
      for (const auto lot : lots) {
        if (!hadCome(lot) || m_lots[lot].mark != from.mark) continue;
        const auto share = takeFrom(lot, wanted, use);
        wanted = wanted - share;
        missing = missing - share;
      }
    }
    for (const auto lot : lots)
      if (hadCome(lot)) missing = missing - takeFrom(lot, missing, use);
    use.notCovered = std::max(missing, Mass{});
    m_out.uses.push_back(std::move(use));
  }

  void take(std::size_t, const shelved::Counted& counted) {
    const auto lot = m_byId.find(counted.lot);
    if (lot == m_byId.end()) return;
    auto& state = m_out.lots[lot->second];
    state.corrected = state.corrected + (counted.left - state.left);
    state.left = counted.left;
  }

  void take(std::size_t, const shelved::Wasted& wasted) {
    const auto lot = m_byId.find(wasted.lot);
    if (lot == m_byId.end()) return;
    auto& state = m_out.lots[lot->second];
    const auto above = wasted.mass - state.left;
    if (above > Mass{}) state.corrected = state.corrected + above;
    state.left = std::max(state.left - wasted.mass, Mass{});
    state.wasted = state.wasted + wasted.mass;
  }

  const std::vector<ShelfLot>& m_lots;
  const std::vector<ShelfEvent>& m_events;
  std::vector<std::size_t> m_oldestFirst;
  const std::vector<std::size_t> m_none;
  std::map<std::string, std::vector<std::size_t>> m_byProduct;
  std::map<std::string, std::size_t> m_byId;
  ShelfAccount m_out;
};

void add(std::vector<Money>& total, const Money& more) {
  const auto place = std::lower_bound(total.begin(), total.end(), more,
                                      [](const Money& a, const Money& b) { return a.currency < b.currency; });
  if (place != total.end() && place->currency == more.currency)
    place->amount += more.amount;
  else
    total.insert(place, more);
}

} // namespace

Mass ShelfAccount::leftOf(const std::vector<ShelfLot>& given, const std::string& product) const {
  Mass out;
  for (std::size_t i = 0; i < given.size(); ++i)
    if (given[i].product == product) out = out + lots[i].left;
  return out;
}

ShelfAccount shelfAccount(const std::vector<ShelfLot>& lots, const std::vector<ShelfEvent>& events) {
  return Keeper(lots, events).keep();
}

UseCost costOf(const UseAccount& use, const std::vector<ShelfLot>& lots) {
  UseCost out;
  out.unpriced = use.notCovered;
  for (const auto& share : use.from) {
    const auto& lot = lots[share.lot];
    if (const auto price = lot.pricePerKg())
      add(out.money, {lot.currency, *price * share.mass.kilograms()});
    else
      out.unpriced = out.unpriced + share.mass;
  }
  return out;
}

void addCost(UseCost& total, const UseCost& more) {
  for (const auto& money : more.money)
    add(total.money, money);
  total.unpriced = total.unpriced + more.unpriced;
}

} // namespace butte::core
