#include "stock/stock.h"

#include "stock/salt_solids.h"
#include "stock/solubility.h"
#include "stock/split.h"
#include "stock/stock_density.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace butte::core {
namespace {

bool isMiscible(const ShelfProduct& p) {
  return p.liquid && isAcidOrBase(p);
}

/// A tank at any factor. All its molalities rise together: by `scale`, the factor over the free water of a
/// litre.
class TankModel {
public:
  TankModel(const std::vector<ShelfProduct>& shelf, std::vector<Concentration> atFactorOne,
            Temperature temperature, double factor)
      : m_shelf(shelf), m_feed(std::move(atFactorOne)), m_water(shelf, m_feed), m_factor(factor),
        m_reference(referenceScale(factor)), m_chemistry(solutesAt(m_reference), temperature) {
    for (std::size_t j = 0; j < shelf.size(); ++j)
      m_critical.push_back(criticalScale(j, temperature));
    m_chemistry.findAmounts(water(factor));
  }

  bool holds(std::size_t j) const { return m_feed[j] > Concentration{}; }
  bool known(std::size_t j) const { return m_critical[j].has_value(); }
  Concentration strength(std::size_t j) const { return m_feed[j] * m_factor; }
  double water(double factor) const { return m_water.kgPerLitre(factor); }
  const TankChemistry& chemistry() const { return m_chemistry; }

  /// Infinite when the salts leave no water.
  std::optional<double> saturation(std::size_t j) const {
    if (!m_critical[j]) return std::nullopt;
    return scale(m_factor) / *m_critical[j];
  }

  struct Ceiling {
    double factor = 0;
    std::optional<std::size_t> product;
    std::string solid; ///< where no product is what gives out
  };

  /// The factor at which the first known solid begins to fall, and which that is.
  std::optional<Ceiling> ceiling() const {
    std::optional<Ceiling> out;
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t j = 0; j < m_feed.size(); ++j) {
      if (!holds(j) || !m_critical[j] || (out && *m_critical[j] >= least)) continue;
      least = *m_critical[j];
      out = Ceiling{0, j, ""};
    }
    for (const auto& solid : m_chemistry.solids()) {
      const double critical = m_reference / solid.saturation;
      if (isProduct(solid) || critical >= least) continue;
      least = critical;
      out = Ceiling{0, std::nullopt, solid.name};
    }
    if (out) out->factor = factorAt(least);
    return out;
  }

  /// True when a product of this tank is the salt itself, so that it speaks for it.
  bool isProduct(const TankSolid& solid) const {
    for (std::size_t j = 0; j < m_feed.size(); ++j) {
      if (solid.salt && holds(j) && saltOf(j) == solid.salt) return true;
    }
    return false;
  }

private:
  std::optional<std::size_t> saltOf(std::size_t j) const {
    const auto& formula = m_shelf[j].composition.formula;
    return formula ? saltSolidOf(*formula) : std::nullopt;
  }

  double scale(double factor) const {
    const double kg = water(factor);
    return kg > 0 ? factor / kg : std::numeric_limits<double>::infinity();
  }

  /// The plan's scale, or the strongest that the chemistry can be asked about.
  double referenceScale(double factor) const {
    double f = factor;
    while (!(scale(f) * solutesPerScale() <= mostSolutesAsked) && f > 1e-9)
      f /= 2;
    return scale(f);
  }

  Solutes solutesAt(double scale) const {
    Solutes sum;
    for (std::size_t j = 0; j < m_feed.size(); ++j)
      sum.addScaled(m_shelf[j].composition.solutesPerGram, m_feed[j].gramsPerLitre() * scale);
    return sum;
  }

  double solutesPerScale() const {
    const auto unit = solutesAt(1);
    return std::accumulate(unit.mol.begin(), unit.mol.end(), 0.0);
  }

  std::optional<double> criticalScale(std::size_t j, Temperature temperature) const {
    const auto& formula = m_shelf[j].composition.formula;
    if (!formula || !holds(j)) return std::nullopt;
    const auto alone = anhydrousGramsPerKgWater(*formula, temperature);
    if (!alone) return std::nullopt;
    const auto salt = saltOf(j);
    if (!salt || !m_chemistry.known())
      return *alone / (m_feed[j].gramsPerLitre() * m_shelf[j].composition.anhydrousFraction);
    for (const auto& solid : m_chemistry.solids()) {
      if (solid.salt == salt) return m_reference / solid.saturation;
    }
    return std::numeric_limits<double>::infinity(); // out of reach
  }

  double factorAt(double criticalScale) const {
    double low = 0, high = 1;
    while (scale(high) < criticalScale && high < 1e9)
      high *= 2;
    for (int i = 0; i < 60; ++i) {
      const double middle = 0.5 * (low + high);
      (scale(middle) < criticalScale ? low : high) = middle;
    }
    return low;
  }

  static constexpr double mostSolutesAsked = 30; // mol/kg

  const std::vector<ShelfProduct>& m_shelf;
  std::vector<Concentration> m_feed;
  StockWater m_water;
  double m_factor;
  double m_reference;
  TankChemistry m_chemistry;
  std::vector<std::optional<double>> m_critical;
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
    const TankModel model(m_shelf, feed, m_plan.temperature, m_plan.factor);
    TankContent content;
    content.tank = m_plan.tanks[t];
    content.waterKgPerLitre = model.water(m_plan.factor);
    const auto ceiling = model.ceiling();
    if (ceiling) {
      content.maxFactorOfKnown = ceiling->factor;
      content.limitingProduct = ceiling->product;
      content.limitingSolid = ceiling->solid;
    }
    content.solids = model.chemistry().solids();
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
    if (!content.items.empty() && model.chemistry().known()) content.ph = model.chemistry().ph();
    for (const auto& solid : content.solids) {
      if (solid.saturation > 1 + 1e-9 && !model.isProduct(solid))
        m_answer.notices.push_back({StockWarning::FallsOut, solid.name, content.tank.name,
                                    solid.gramsPerLitre, content.maxFactorOfKnown});
    }
    if (!content.items.empty() && content.waterKgPerLitre <= 0)
      m_answer.notices.push_back(
          {StockWarning::WhollyTooStrong, "", content.tank.name, 0, content.maxFactorOfKnown});
    noteMeetings(content);
    m_answer.tanks.push_back(std::move(content));
  }

  void addItem(TankContent& content, const TankModel& model, std::size_t j) {
    TankItem item;
    item.product = j;
    item.strength = model.strength(j);
    item.mass = item.strength * content.tank.volume;
    item.saturation = model.saturation(j);
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
