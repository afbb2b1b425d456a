#include "stock/stock.h"

#include "solution/water_properties.h"
#include "stock/component_nutrients.h"
#include "stock/crystal_form.h"
#include "stock/salt_solids.h"
#include "stock/split.h"
#include "stock/tank_model.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

constexpr double worthNaming = 0.005; // g/L of lime: less is a haze that nobody sees

/// Carbonates, acetates and silicates: acid drives out their weak acid.
bool isWeakAcidSalt(const Composition& c) {
  if (c.role == ProductRole::Silicate) return true;
  if (c.role == ProductRole::Acid || c.role == ProductRole::Chelate) return false;
  const auto& s = c.solutesPerGram;
  return s.of(Component::Carbonate) > 0 || s.of(Component::Acetate) > 0;
}

/// Hypochlorite and its kin: chlorine with oxygen, and nothing else that the oxygen could belong to.
bool isHypochlorite(const Composition& c) {
  if (!c.formula || c.formula->count("Cl") <= 0) return false;
  const auto& f = *c.formula;
  for (const char* other : {"N", "S", "P", "C", "B", "Si", "Mo"}) {
    if (f.count(other) > 0) return false;
  }
  const double hydroxide = f.count("H") - 2 * f.hydrateWaterCount;
  return f.count("O") - f.hydrateWaterCount - hydroxide > 0.5;
}

std::vector<Concentration> feedOf(const std::vector<Mass>& grams, Volume batch) {
  std::vector<Concentration> feed;
  for (const auto& g : grams)
    feed.push_back(g / batch);
  return feed;
}

class Planner {
public:
  Planner(const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& grams, Volume batch,
          const StockPlan& plan)
      : m_shelf(shelf), m_plan(plan), m_feed(feedOf(grams, batch)), m_meetings(shelf, m_feed, plan),
        m_shares(splitByRules(shelf, m_feed, plan, m_meetings)) {}

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
    TankContent content;
    content.tank = m_plan.tanks[t];
    content.factor = content.tank.ownFactor.value_or(m_plan.factor);
    const TankModel model(m_shelf, feed, content.tank.makeUpPerLitre, m_plan.temperature, content.factor);
    content.waterKgPerLitre = model.water(content.factor);
    const auto ceiling = model.ceiling();
    if (ceiling) {
      content.maxFactorOfKnown = ceiling->factor;
      content.safeFactor = ceiling->factor * (1 - m_plan.marginPercent / 100);
      content.limitingProduct = ceiling->product;
      content.limitingSolid = ceiling->solid;
    }
    content.solids = model.solids();
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
    if (!content.items.empty() && content.tank.use != TankUse::Acid) noteFeedMade(content.tank);
    if (!content.items.empty()) content.ph = model.ph();
    weighTheLitre(content);
    settle(content, model);
    for (const auto& solid : content.solids) {
      if (solid.saturation <= 1 + 1e-9 || model.isProduct(solid)) continue;
      if (model.fallsAtAnyStrength(solid) && solid.gramsPerLitre < worthNaming) continue;
      if (model.fallsAtAnyStrength(solid))
        m_answer.notices.push_back(
            {StockWarning::WaterFallsOut, solid.name, content.tank.name, solid.gramsPerLitre, {}});
      else
        m_answer.notices.push_back({StockWarning::FallsOut, solid.name, content.tank.name,
                                    solid.gramsPerLitre, content.maxFactorOfKnown});
    }
    if (!content.items.empty() && content.waterKgPerLitre <= 0)
      m_answer.notices.push_back(
          {StockWarning::WhollyTooStrong, "", content.tank.name, 0, content.maxFactorOfKnown});
    noteMeetings(content);
    m_answer.tanks.push_back(std::move(content));
  }

  /// The tank is filled to its mark: its salts take up room, and bring their own water.
  void weighTheLitre(TankContent& content) const {
    double dissolved = 0, broughtWater = 0; // kg per litre
    for (const auto& item : content.items) {
      const auto& c = m_shelf[item.product].composition;
      const double waterFree = waterFreeFractionOf(c);
      dissolved += item.strength.gramsPerLitre() / 1000 * waterFree;
      broughtWater += item.strength.gramsPerLitre() / 1000 * (1 - waterFree);
    }
    content.densityKgPerLitre = content.waterKgPerLitre + dissolved;
    content.addedWaterLitresPerLitre =
        std::max(0.0, content.waterKgPerLitre - broughtWater) / waterDensityKgPerLitre;
  }

  void settle(TankContent& content, const TankModel& model) const {
    content.dissolvedPerLitre = model.dissolvedPerLitre();
    content.fallen = model.fallen();
    for (const auto& solid : content.solids) {
      if (solid.molPerLitre <= 0) continue;
      const auto lost = nutrientsIn(model.chemistry().takenBy(solid));
      content.lostMgPerLitreOfFeed.addScaled(lost, 1000 / content.factor);
    }
    for (const auto& fallen : content.fallen) {
      if (!fallen.product) continue;
      const auto& c = m_shelf[*fallen.product].composition;
      if (c.formula && saltSolidOf(*c.formula)) continue; // among the chemistry's solids
      content.lostMgPerLitreOfFeed.addScaled(c.massFraction, fallen.gramsPerLitre * 1000 / content.factor);
      content.dissolvedPerLitre.addScaled(c.solutesPerGram, -fallen.gramsPerLitre);
    }
  }

  bool dropsMinerals(const TankContent& content) const {
    return std::any_of(content.solids.begin(), content.solids.end(),
                       [](const TankSolid& s) { return !s.salt && s.saturation > 1 + 1e-9; });
  }

  /// The pairs that may not meet, looked for where something falls only.
  void namePairs(TankContent& content) {
    for (auto a = content.items.begin(); a != content.items.end(); ++a) {
      for (auto b = std::next(a); b != content.items.end(); ++b) {
        if (const auto* meeting = m_meetings.between(a->product, b->product))
          content.meetings.push_back({a->product, b->product, meeting->solid});
      }
    }
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
    const Volume feed = tank.volume * tank.ownFactor.value_or(m_plan.factor);
    m_answer.feedMade = m_answer.feedMade ? std::min(*m_answer.feedMade, feed) : feed;
  }

  void noteMeetings(TankContent& content) {
    bool calcium = false, sulfatePhosphate = false, chelate = false, acid = false, weak = false,
         hypochlorite = false;
    for (const auto& item : content.items) {
      const auto& c = m_shelf[item.product].composition;
      calcium |= c.massFraction.of(Nutrient::Ca) > 0.002;
      sulfatePhosphate |= c.massFraction.of(Nutrient::S) > 0.002 || c.massFraction.of(Nutrient::P) > 0.002;
      chelate |= c.role == ProductRole::Chelate;
      acid |= c.role == ProductRole::Acid;
      weak |= isWeakAcidSalt(c);
      hypochlorite |= isHypochlorite(c);
    }
    const auto note = [&](bool so, StockWarning kind) {
      if (so) m_answer.notices.push_back({kind, "", content.tank.name, 0, {}});
    };
    const bool falls = dropsMinerals(content);
    if (falls) namePairs(content);
    note(calcium && sulfatePhosphate && falls, StockWarning::CalciumMeets);
    note(chelate && acid, StockWarning::ChelateMeetsAcid);
    note(acid && weak, StockWarning::AcidMeetsWeakSalt);
    note(acid && hypochlorite, StockWarning::AcidMeetsHypochlorite);
  }

  const std::vector<ShelfProduct>& m_shelf;
  const StockPlan& m_plan;
  std::vector<Concentration> m_feed;
  ShelfMeetings m_meetings;
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
