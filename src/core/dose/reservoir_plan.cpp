#include "dose/reservoir_plan.h"

#include "base/decimal.h"
#include "dose/reach_reading.h"
#include "formula/acid_plan.h"
#include "solution/conductivity.h"

#include <algorithm>

namespace butte::core {
namespace {

constexpr double firstOfAcid = 0.7; // of the acid, before it is read again (common practice)
constexpr int aimRounds = 2;        // leave less than a pen sees
constexpr double leastWorthALitre = 1e-9;

class ReservoirPlanner {
public:
  ReservoirPlanner(const ReservoirGiven& given, const StockAnswer& stock, const MixResult& water)
      : m_given(given), m_stock(stock), m_water(water) {
    for (std::size_t t = 0; t < stock.tanks.size(); ++t) {
      const auto& content = stock.tanks[t];
      if (content.items.empty() || (given.acid && content.tank.use == TankUse::Acid)) continue;
      m_used.push_back(t);
      m_share.push_back(1000 / content.factor / stock.doseMlPerLitre);
    }
  }

  Result<std::vector<ReservoirStep>> plan() {
    if (const auto fault = check()) return *fault;
    // The acid adds to the reading too: the stocks aim that much lower, so that the end is right.
    auto aim = m_given.target;
    auto steps = planFor(aim);
    for (int round = 0; round < aimRounds && steps && m_given.acid && !steps->empty(); ++round) {
      const auto lower = aim + m_given.target - steps->back().expected;
      auto better = planFor(lower);
      if (!better) break;
      aim = lower;
      steps = std::move(better);
    }
    return steps;
  }

private:
  Result<std::vector<ReservoirStep>> planFor(Conductivity aim) {
    m_steps.clear();
    const auto curve = [this](double dose) { return conductivity(atDose(dose)); };
    const auto then = doseAt(curve, aim);
    if (!then || !(*then > 0)) return unreachable("target", aim, curve(0));
    double now = 0;
    if (m_given.present > Volume{}) {
      const auto found = doseAt(curve, m_given.reading);
      if (!found) return unreachable("reading", m_given.reading, curve(0));
      now = *found;
    }
    start(now);
    drainToFit(now, *then);
    const double missing = m_given.finished.litres() * *then - m_volume.litres() * now; // mL of each stock
    pourWater(missing);
    doseStocks(std::max(0.0, missing));
    doseAcid();
    pour(ReservoirAct::LastWater, m_given.lastWater, 0, m_water.solutesPerLitre);
    return m_steps;
  }

  std::optional<Problem> check() const {
    const auto fault = [](const char* where, Volume v, const char* right) {
      return problemAt(ProblemCode::OutOfRange, where, {decimalText(v.litres()), right});
    };
    if (!(m_given.finished > Volume{})) return fault("finished", m_given.finished, "above 0 L");
    if (!(m_given.present >= Volume{}) || m_given.present > m_given.finished)
      return fault("present", m_given.present, "0 L up to the full mark");
    if (!(m_given.lastWater >= Volume{}) || m_given.lastWater >= m_given.finished)
      return fault("last_water", m_given.lastWater, "0 L up to less than the full mark");
    if (!(m_given.stockStrength > 0))
      return problemAt(ProblemCode::OutOfRange, "stock_strength",
                       {decimalText(m_given.stockStrength), "above 0"});
    if (m_used.empty()) return problemAt(ProblemCode::MissingKey, "tanks", {"a tank with something in it"});
    return std::nullopt;
  }

  static Problem unreachable(const char* where, Conductivity ec, Conductivity water) {
    return problemAt(ProblemCode::OutOfRange, where,
                     {decimalText(ec.milliSiemensPerCm()), "above the water's own " +
                                                               decimalText(water.milliSiemensPerCm()) +
                                                               " mS/cm, and what the stocks can reach"});
  }

  /// A litre of feed with so many mL of each stock, in mol.
  Solutes atDose(double dose) const {
    Solutes sum;
    double stocks = 0;
    for (std::size_t i = 0; i < m_used.size(); ++i) {
      const double litres = dose * m_share[i] / 1000;
      sum.addScaled(m_stock.tanks[m_used[i]].dissolvedPerLitre, litres * m_given.stockStrength);
      stocks += litres;
    }
    sum.addScaled(m_water.solutesPerLitre, std::max(0.0, 1 - stocks));
    return sum;
  }

  EquilibriumConditions conditions() const {
    EquilibriumConditions out;
    out.temperature = m_water.temperature;
    return out;
  }

  Conductivity conductivity(const Solutes& perLitre) const {
    const auto at25 = conductivityAt25(perLitre, m_water.waterKgPerLitre, conditions());
    return at25 ? *at25 : Conductivity{};
  }

  void start(double dose) {
    m_volume = m_given.present;
    m_solutes = atDose(dose).scaled(m_volume.litres());
  }

  Solutes perLitre() const { return m_solutes.scaled(1 / m_volume.litres()); }

  /// What stands too strong for the full vessel goes first.
  void drainToFit(double now, double then) {
    if (now <= 0) return;
    const auto stays = Volume::fromLitres(m_given.finished.litres() * then / now);
    if (stays >= m_volume) return;
    const auto drained = m_volume - stays;
    m_solutes = m_solutes.scaled(stays / m_volume);
    m_volume = stays;
    note(ReservoirAct::Drain, 0, drained, {});
  }

  double stocksPerEach() const {
    double sum = 0;
    for (const double share : m_share)
      sum += share;
    return sum;
  }

  void pourWater(double missingMl) {
    const auto stocks = Volume::fromMillilitres(std::max(0.0, missingMl) * stocksPerEach());
    const auto water = m_given.finished - m_volume - stocks - m_given.lastWater;
    pour(ReservoirAct::Water, water, 0, m_water.solutesPerLitre);
  }

  void doseStocks(double missingMl) {
    const int parts = m_given.cautious ? 2 : 1;
    for (int part = 0; part < parts; ++part) {
      for (std::size_t i = 0; i < m_used.size(); ++i) {
        const auto amount = Volume::fromMillilitres(missingMl * m_share[i] / parts);
        pour(ReservoirAct::Stock, amount, m_used[i],
             m_stock.tanks[m_used[i]].dissolvedPerLitre.scaled(m_given.stockStrength));
      }
      if (!m_steps.empty()) m_steps.back().readNow = true;
    }
  }

  void doseAcid() {
    if (!m_given.acid || !m_water.ph || !(m_volume > Volume{})) return;
    const auto& acid = *m_given.acid;
    const Titrated titrated{perLitre(), m_water.waterKgPerLitre, conditions()};
    const auto dose = doseToReach(titrated, acid.composition.solutesPerGram, m_given.targetPh);
    if (!dose || dose->gramsPerLitre <= 0) return;
    const auto all = Mass::fromGrams(dose->gramsPerLitre * m_volume.litres());
    std::vector<double> shares{1.0};
    if (m_given.cautious) shares = {firstOfAcid, 1 - firstOfAcid};
    for (const double share : shares) {
      const auto mass = all * share;
      m_solutes.addScaled(acid.composition.solutesPerGram, mass.grams());
      const auto amount =
          acid.densityKgPerL ? Volume::fromLitres(mass.kilograms() / *acid.densityKgPerL) : Volume{};
      m_volume = m_volume + amount;
      note(ReservoirAct::Acid, 0, amount, mass);
      m_steps.back().readNow = true;
    }
  }

  void pour(ReservoirAct act, Volume amount, std::size_t tank, const Solutes& perLitre) {
    if (!(amount.litres() > leastWorthALitre)) return;
    m_solutes.addScaled(perLitre, amount.litres());
    m_volume = m_volume + amount;
    note(act, tank, amount, {});
  }

  void note(ReservoirAct act, std::size_t tank, Volume amount, Mass mass) {
    ReservoirStep step;
    step.act = act;
    step.tank = tank;
    step.amount = amount;
    step.mass = mass;
    step.volumeAfter = m_volume;
    if (m_volume > Volume{}) {
      step.expected = conductivity(perLitre());
      if (m_water.ph) {
        if (const auto settled = equilibrate(perLitre().scaled(1 / m_water.waterKgPerLitre), conditions()))
          step.ph = settled->ph;
      }
    }
    m_steps.push_back(step);
  }

  const ReservoirGiven& m_given;
  const StockAnswer& m_stock;
  const MixResult& m_water;
  std::vector<std::size_t> m_used; ///< tanks that are dosed from
  std::vector<double> m_share;     ///< mL of each per mL of the plan's dose
  Solutes m_solutes;               ///< in the vessel, mol
  Volume m_volume;
  std::vector<ReservoirStep> m_steps;
};

} // namespace

Result<std::vector<ReservoirStep>> planReservoir(const ReservoirGiven& given, const StockAnswer& stock,
                                                 const MixResult& water) {
  return ReservoirPlanner(given, stock, water).plan();
}

} // namespace butte::core
