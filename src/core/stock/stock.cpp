#include "stock/stock.h"

#include "stock/solubility.h"
#include "stock/split.h"
#include "stock/stock_density.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

bool isMiscible(const ShelfProduct& p) {
  return p.liquid && isAcidOrBase(p);
}

/// A tank's strengths at any factor: what the ceiling is searched on.
class TankModel {
public:
  TankModel(const std::vector<ShelfProduct>& shelf, std::vector<Concentration> atFactorOne,
            Temperature temperature)
      : m_shelf(shelf), m_feed(std::move(atFactorOne)), m_water(shelf, m_feed) {
    for (const auto& p : shelf) {
      m_solubility.push_back(p.composition.formula
                                 ? anhydrousGramsPerKgWater(*p.composition.formula, temperature)
                                 : std::nullopt);
    }
  }

  bool holds(std::size_t j) const { return m_feed[j] > Concentration{}; }
  bool known(std::size_t j) const { return m_solubility[j].has_value(); }
  Concentration strength(std::size_t j, double factor) const { return m_feed[j] * factor; }

  double water(double factor) const { return m_water.kgPerLitre(factor); }

  /// Infinite when the salts leave no water.
  std::optional<double> saturation(std::size_t j, double factor) const {
    if (!m_solubility[j]) return std::nullopt;
    return saturationIn(j, factor, water(factor));
  }

  /// The factor at which the first known salt reaches its solubility, and which salt that is.
  std::optional<std::pair<double, std::size_t>> ceiling() const {
    double low = 0, high = 1;
    std::optional<std::size_t> limiting = mostSaturated(high);
    if (!limiting) return std::nullopt;
    while (peak(high) < 1 && high < 1e9)
      high *= 2;
    // Bisection: saturation rises steadily with the factor, since salt grows and water shrinks.
    for (int i = 0; i < 60; ++i) {
      const double middle = 0.5 * (low + high);
      (peak(middle) < 1 ? low : high) = middle;
    }
    return std::pair(low, *mostSaturated(low));
  }

private:
  double saturationIn(std::size_t j, double factor, double waterKg) const {
    const double anhydrous = strength(j, factor).gramsPerLitre() * m_shelf[j].composition.anhydrousFraction;
    if (waterKg <= 0) return std::numeric_limits<double>::infinity();
    return anhydrous / waterKg / *m_solubility[j];
  }

  std::optional<std::size_t> mostSaturated(double factor) const {
    std::optional<std::size_t> best;
    const double waterKg = water(factor);
    for (std::size_t j = 0; j < m_feed.size(); ++j) {
      if (!holds(j) || !known(j)) continue;
      if (!best || saturationIn(j, factor, waterKg) > saturationIn(*best, factor, waterKg)) best = j;
    }
    return best;
  }

  double peak(double factor) const {
    const double waterKg = water(factor);
    double most = 0;
    for (std::size_t j = 0; j < m_feed.size(); ++j) {
      if (holds(j) && known(j)) most = std::max(most, saturationIn(j, factor, waterKg));
    }
    return most;
  }

  const std::vector<ShelfProduct>& m_shelf;
  std::vector<Concentration> m_feed;
  StockWater m_water;
  std::vector<std::optional<double>> m_solubility;
};

class Planner {
public:
  Planner(const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& grams, Volume batch,
          const StockPlan& plan)
      : m_shelf(shelf), m_plan(plan) {
    for (const auto& g : grams)
      m_feed.push_back(g / batch);
    m_shares = splitByRules(shelf, m_feed, plan);
  }

  StockAnswer run() {
    m_answer.doseMlPerLitre = 1000 / m_plan.factor;
    for (std::size_t t = 0; t < m_plan.tanks.size(); ++t)
      fillTank(t);
    for (std::size_t j = 0; j < m_shelf.size(); ++j) {
      const bool placed = std::any_of(m_shares[j].begin(), m_shares[j].end(), [](double s) { return s > 0; });
      if (placed || m_feed[j] <= Concentration{}) continue;
      m_answer.notPlaced.push_back(j);
      m_answer.notices.push_back({StockWarning::NotPlaced, m_shelf[j].id, "", 0, {}});
    }
    return std::move(m_answer);
  }

private:
  void fillTank(std::size_t t) {
    std::vector<Concentration> feed = m_feed;
    for (std::size_t j = 0; j < feed.size(); ++j)
      feed[j] = feed[j] * m_shares[j][t];
    const TankModel model(m_shelf, feed, m_plan.temperature);
    TankContent content;
    content.tank = m_plan.tanks[t];
    content.waterKgPerLitre = model.water(m_plan.factor);
    const auto ceiling = model.ceiling();
    if (ceiling) {
      content.maxFactorOfKnown = ceiling->first;
      content.limitingProduct = ceiling->second;
    }
    bool allKnown = true;
    for (std::size_t j = 0; j < feed.size(); ++j) {
      if (!model.holds(j)) continue;
      addItem(content, model, j);
      if (!model.known(j) && !isMiscible(m_shelf[j])) {
        allKnown = false;
        m_answer.notices.push_back({StockWarning::PartlyUnknown, m_shelf[j].id, content.tank.name, 0, {}});
      }
    }
    if (allKnown) content.maxFactor = content.maxFactorOfKnown;
    if (!content.items.empty()) noteFeedMade(content.tank);
    if (!content.items.empty() && content.waterKgPerLitre <= 0)
      m_answer.notices.push_back(
          {StockWarning::WhollyTooStrong, "", content.tank.name, 0, content.maxFactorOfKnown});
    noteMeetings(content);
    m_answer.tanks.push_back(std::move(content));
  }

  void addItem(TankContent& content, const TankModel& model, std::size_t j) {
    TankItem item;
    item.product = j;
    item.strength = model.strength(j, m_plan.factor);
    item.mass = item.strength * content.tank.volume;
    item.saturation = model.saturation(j, m_plan.factor);
    item.miscible = isMiscible(m_shelf[j]) && !item.saturation;
    if (item.saturation && *item.saturation > 1 + 1e-9)
      m_answer.notices.push_back({StockWarning::WontDissolve, m_shelf[j].id, content.tank.name,
                                  item.strength.gramsPerLitre(), content.maxFactorOfKnown});
    content.items.push_back(item);
  }

  void noteFeedMade(const Tank& tank) {
    const Volume feed = tank.volume * m_plan.factor;
    m_answer.feedMade = m_answer.feedMade ? std::min(*m_answer.feedMade, feed) : feed;
  }

  void noteMeetings(const TankContent& content) {
    bool calcium = false, sulfatePhosphate = false, chelate = false, acid = false, mixed = false;
    for (const auto& item : content.items) {
      const auto& c = m_shelf[item.product].composition;
      calcium |= c.side == StockSide::Calcium && c.massFraction.of(Nutrient::Ca) > 0;
      sulfatePhosphate |= c.massFraction.of(Nutrient::S) > 0.002 || c.massFraction.of(Nutrient::P) > 0.002;
      mixed |= c.massFraction.of(Nutrient::Ca) > 0.002 && c.side == StockSide::Apart;
      chelate |= c.role == ProductRole::Chelate;
      acid |= c.role == ProductRole::Acid;
    }
    if ((calcium || mixed) && sulfatePhosphate)
      m_answer.notices.push_back({StockWarning::CalciumMeets, "", content.tank.name, 0, {}});
    if (chelate && acid)
      m_answer.notices.push_back({StockWarning::ChelateMeetsAcid, "", content.tank.name, 0, {}});
  }

  const std::vector<ShelfProduct>& m_shelf;
  const StockPlan& m_plan;
  std::vector<Concentration> m_feed;
  std::vector<std::vector<double>> m_shares;
  StockAnswer m_answer;
};

} // namespace

Mass TankContent::total() const {
  Mass sum;
  for (const auto& item : items)
    sum = sum + item.mass;
  return sum;
}

StockAnswer planStock(const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& grams, Volume batch,
                      const StockPlan& plan) {
  return Planner(shelf, grams, batch, plan).run();
}

} // namespace butte::core
