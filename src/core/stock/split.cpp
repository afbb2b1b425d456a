#include "stock/split.h"

#include <algorithm>
#include <numeric>

namespace butte::core {
namespace {

using Shares = std::vector<std::vector<double>>;

constexpr double mostlyTraces = 0.02; // mass fraction of Fe, Mn, Zn, B, Cu and Mo together (common practice)

bool isTraceProduct(const ShelfProduct& p) {
  const auto& m = p.composition.massFraction;
  double traces = 0, majors = 0;
  for (const auto n : allNutrients) {
    if (isTraceElement(n)) traces += m.of(n);
  }
  for (const auto n : {Nutrient::N, Nutrient::P, Nutrient::K, Nutrient::Ca, Nutrient::Mg})
    majors += m.of(n);
  return traces > mostlyTraces && traces > majors;
}

bool isCalciumChloride(const ShelfProduct& p) {
  const auto& m = p.composition.massFraction;
  return m.of(Nutrient::Ca) > 0.1 && m.of(Nutrient::Cl) > 0.1;
}

class Splitter {
public:
  Splitter(const std::vector<ShelfProduct>& shelf, const std::vector<Concentration>& feed,
           const StockPlan& plan, ShelfMeetings& meetings)
      : m_shelf(shelf), m_feed(feed), m_plan(plan), m_meetings(meetings),
        m_shares(shelf.size(), std::vector<double>(plan.tanks.size(), 0.0)), m_open(shelf.size(), true) {
    for (std::size_t t = 0; t < plan.tanks.size(); ++t)
      m_tanksOf[static_cast<std::size_t>(plan.tanks[t].use)].push_back(t);
  }

  Shares run() {
    takeByHand();
    placeAcids();
    placeAlone();
    placeTraces();
    const auto& salts = tanks(TankUse::Salts);
    if (salts.size() == 1) {
      for (const auto j : open())
        placeUnlessApart(j, salts[0]);
    } else if (salts.size() > 1) {
      separate();
      level();
    }
    return std::move(m_shares);
  }

private:
  const std::vector<std::size_t>& tanks(TankUse use) const {
    return m_tanksOf[static_cast<std::size_t>(use)];
  }

  std::vector<std::size_t> open() const {
    std::vector<std::size_t> out;
    for (std::size_t j = 0; j < m_shelf.size(); ++j) {
      if (m_open[j]) out.push_back(j);
    }
    return out;
  }

  void place(std::size_t product, std::size_t tank) {
    m_shares[product][tank] = 1;
    m_open[product] = false;
  }

  void takeByHand() {
    for (std::size_t j = 0; j < m_shelf.size(); ++j) {
      const auto byHand = m_plan.shares.find(m_shelf[j].id);
      if (byHand == m_plan.shares.end()) continue;
      m_shares[j] = byHand->second;
      m_shares[j].resize(m_plan.tanks.size());
      m_open[j] = false;
    }
  }

  void placeAcids() {
    for (const auto j : open()) {
      if (!isAcidOrBase(m_shelf[j])) continue;
      if (m_shelf[j].composition.role == ProductRole::Acid && !tanks(TankUse::Acid).empty())
        place(j, tanks(TankUse::Acid)[0]);
      m_open[j] = false;
    }
  }

  /// Silicate first, then calcium chloride, then what drops something all by itself.
  void placeAlone() {
    std::vector<std::size_t> queue;
    const auto add = [&](auto&& wanted) {
      for (const auto j : open()) {
        if (m_feed[j] > Concentration{} && wanted(j) &&
            std::find(queue.begin(), queue.end(), j) == queue.end())
          queue.push_back(j);
      }
    };
    add([&](std::size_t j) { return m_shelf[j].composition.role == ProductRole::Silicate; });
    if (!tanks(TankUse::Alone).empty()) {
      add([&](std::size_t j) { return isCalciumChloride(m_shelf[j]); });
      add([&](std::size_t j) { return dropsByItself(j); });
    }
    for (std::size_t i = 0; i < queue.size() && i < tanks(TankUse::Alone).size(); ++i)
      place(queue[i], tanks(TankUse::Alone)[i]);
    for (const auto j : open()) {
      if (m_shelf[j].composition.role == ProductRole::Silicate) m_open[j] = false;
    }
  }

  void placeTraces() {
    if (tanks(TankUse::Traces).empty()) return;
    for (const auto j : open()) {
      if (isTraceProduct(m_shelf[j])) place(j, tanks(TankUse::Traces)[0]);
    }
  }

  bool dropsByItself(std::size_t j) {
    if (m_feed[j] <= Concentration{} || m_shelf[j].composition.side != StockSide::Apart) return false;
    return m_meetings.within(j).has_value();
  }

  void placeUnlessApart(std::size_t j, std::size_t tank) {
    if (m_plan.factor > 1 && dropsByItself(j)) {
      m_open[j] = false;
      return;
    }
    place(j, tank);
  }

  /// True when a product that the rules put into the tank already may not meet this one. What a hand put
  /// there moves nothing else: the hand wants to see what it does.
  bool meetsIn(std::size_t j, std::size_t tank) const {
    for (std::size_t k = 0; k < m_shelf.size(); ++k) {
      if (k == j || m_shares[k][tank] <= 0 || m_plan.shares.contains(m_shelf[k].id)) continue;
      if (m_meetings.between(j, k)) return true;
    }
    return false;
  }

  /// Of what stands in the tanks for salts or is still to be placed there: what has a tank of its own meets
  /// nothing.
  bool meetsSomething(std::size_t j) const {
    for (std::size_t k = 0; k < m_shelf.size(); ++k) {
      if (k != j && sharesSaltTanks(k) && m_meetings.between(j, k)) return true;
    }
    return false;
  }

  bool sharesSaltTanks(std::size_t k) const {
    const auto& salts = tanks(TankUse::Salts);
    return m_open[k] ||
           std::any_of(salts.begin(), salts.end(), [&](std::size_t t) { return m_shares[k][t] > 0; });
  }

  double calcium(std::size_t j) const {
    return m_shelf[j].composition.massFraction.of(Nutrient::Ca) * m_feed[j].gramsPerLitre();
  }

  /// The calcium bringers first, the strongest in front, then what the usual side is known of.
  void separate() {
    for (const auto j : open()) {
      if (dropsByItself(j)) placeInThird(j);
    }
    auto order = open();
    std::stable_sort(order.begin(), order.end(), [&](auto a, auto b) { return calcium(a) > calcium(b); });
    for (const auto j : order) {
      const auto side = m_shelf[j].composition.side;
      if (side == StockSide::Either && !meetsSomething(j)) continue; // a neutral salt: for levelling
      const bool calciumSide = side == StockSide::Calcium || (side == StockSide::Apart && calcium(j) > 0);
      placeClear(j, calciumSide ? 0 : 1);
    }
  }

  /// Into the preferred tank for salts, else the other, else a third.
  void placeClear(std::size_t j, std::size_t preferred) {
    const auto& salts = tanks(TankUse::Salts);
    for (const auto t : {salts[preferred], salts[1 - preferred]}) {
      if (meetsIn(j, t)) continue;
      return place(j, t);
    }
    placeInThird(j);
  }

  void placeInThird(std::size_t j) {
    const auto& salts = tanks(TankUse::Salts);
    for (std::size_t i = 2; i < salts.size(); ++i) {
      if (!meetsIn(j, salts[i])) return place(j, salts[i]);
    }
    m_open[j] = false; // stays apart: said as such
  }

  double load(std::size_t tank) const {
    double sum = 0;
    for (std::size_t j = 0; j < m_feed.size(); ++j)
      sum += m_shares[j][tank] * m_feed[j].gramsPerLitre();
    return sum;
  }

  /// The neutral salts, heaviest first: the heaviest is divided so that both tanks weigh the same, the others
  /// go to the lighter side. Where one side is empty there is nothing to keep apart, and one tank will do.
  void level() {
    const auto first = tanks(TankUse::Salts)[0], second = tanks(TankUse::Salts)[1];
    std::vector<std::size_t> neutral;
    for (const auto j : open()) {
      if (m_feed[j] > Concentration{}) neutral.push_back(j);
    }
    if (load(first) <= 0 || load(second) <= 0) {
      for (const auto j : neutral)
        place(j, load(second) > 0 ? second : first);
      return;
    }
    std::stable_sort(neutral.begin(), neutral.end(), [&](auto a, auto b) { return m_feed[a] > m_feed[b]; });
    for (std::size_t i = 1; i < neutral.size(); ++i)
      place(neutral[i], load(first) < load(second) ? first : second);
    if (neutral.empty()) return;
    divide(neutral.front(), first, second);
  }

  void divide(std::size_t j, std::size_t first, std::size_t second) {
    const double amount = m_feed[j].gramsPerLitre();
    const double gap = load(second) - load(first);
    const double toFirst = std::clamp(0.5 + gap / (2 * amount), 0.0, 1.0);
    // A tenth of it in the other tank is not worth a second weighing.
    const double share = toFirst < 0.1 ? 0 : toFirst > 0.9 ? 1 : toFirst;
    m_shares[j][first] = share;
    m_shares[j][second] = 1 - share;
    m_open[j] = false;
  }

  const std::vector<ShelfProduct>& m_shelf;
  const std::vector<Concentration>& m_feed;
  const StockPlan& m_plan;
  ShelfMeetings& m_meetings;
  std::array<std::vector<std::size_t>, 4> m_tanksOf;
  Shares m_shares;
  std::vector<char> m_open; ///< not placed yet, and not to be left apart
};

} // namespace

std::vector<std::vector<double>> splitByRules(const std::vector<ShelfProduct>& shelf,
                                              const std::vector<Concentration>& feed, const StockPlan& plan,
                                              ShelfMeetings& meetings) {
  if (plan.tanks.empty()) return {shelf.size(), std::vector<double>{}};
  return Splitter(shelf, feed, plan, meetings).run();
}

} // namespace butte::core
