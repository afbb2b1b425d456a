#include "tank/tank_advice.h"

#include "solution/acid_dose.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

constexpr int weekDays = 7;
constexpr double leastRoom = 0.005; // of a full vessel: no mark is met closer (common practice)

FeedContent scaled(const FeedContent& feed, double factor) {
  FeedContent out;
  out.milligramsPerLitre.addScaled(feed.milligramsPerLitre, factor);
  out.alkalinityMeqPerL = feed.alkalinityMeqPerL * factor;
  return out;
}

/// Water with `factor` of what the feed holds above it.
FeedContent atStrength(const FeedContent& water, const FeedContent& feed, double factor) {
  auto out = scaled(water, 1 - factor);
  out.milligramsPerLitre.addScaled(feed.milligramsPerLitre, factor);
  out.alkalinityMeqPerL += feed.alkalinityMeqPerL * factor;
  return out;
}

class Advisor {
public:
  explicit Advisor(const AdviceRequest& request) : m_request(request) {
    const auto missing = request.plan.full - request.stands.volume;
    if (missing > request.plan.full * leastRoom) m_room = missing;
    if (const auto perLitre = request.stands.perLitre()) {
      m_ph = readingsOf(*perLitre, request.air);
    }
  }

  std::vector<Advice> all() {
    return {refill(AdviceKind::RefillAsPlanned, 1),
            byRule(),
            byStocks(),
            bySalts(),
            acidOrBase(),
            bleed(),
            dump(),
            ofUptake()};
  }

private:
  static Advice closed(AdviceKind kind, NotOpen why) {
    Advice out;
    out.kind = kind;
    out.notOpen = why;
    return out;
  }

  /// Fills in what the tank holds then, and a week later.
  Advice seen(Advice advice, const ReservoirContent& then, ReservoirFlow flow, const FeedContent& refill) {
    if (const auto perLitre = then.perLitre()) {
      advice.after = *perLitre;
      if (const auto readings = readingsOf(*perLitre, m_request.air)) advice.reads = *readings;
    }
    const auto days = balanceOf(
        {then, m_request.plan.full, refill, m_request.plan.rule, flow, m_request.air, true, weekDays});
    if (const auto perLitre = days.back().content.perLitre()) advice.inAWeek = *perLitre;
    advice.readsInAWeek = days.back().readings;
    return advice;
  }
  Advice seen(Advice advice, const ReservoirContent& then) {
    return seen(std::move(advice), then, m_request.flow, m_request.plan.refill);
  }

  Advice refill(AdviceKind kind, double factor) {
    if (!(m_room > Volume{})) return closed(kind, NotOpen::Full);
    Advice out;
    out.kind = kind;
    out.feedFactor = factor;
    out.pour = m_room;
    auto then = m_request.stands;
    then.pour(atStrength(m_request.water, m_request.plan.refill, factor), m_room);
    return seen(std::move(out), then);
  }

  Advice byRule() {
    if (!m_ph) return closed(AdviceKind::RefillByRule, NotOpen::NoWater);
    const auto answer = byGrowersRule(m_request.rule, m_ph->at25, m_ph->ph);
    auto out = refill(AdviceKind::RefillByRule, answer.refillFactor);
    out.ph = answer.ph;
    return out;
  }

  /// The strength whose misses, weighed as the solver does, are least: a parabola's lowest point.
  Advice byStocks() {
    if (!m_request.hasStocks) return closed(AdviceKind::RefillByStocks, NotOpen::NoStocks);
    if (m_request.rows.empty()) return closed(AdviceKind::RefillByStocks, NotOpen::NoTarget);
    if (!(m_room > Volume{})) return closed(AdviceKind::RefillByStocks, NotOpen::Full);
    auto withWater = m_request.stands;
    withWater.pour(m_request.water, m_room);
    const double share = m_room / withWater.volume;
    double against = 0, along = 0;
    for (const auto& row : m_request.rows) {
      const auto n = row.nutrient;
      const double stands = withWater.milligrams.of(n) / withWater.volume.litres();
      const double brings =
          share * (m_request.plan.refill.milligramsPerLitre.of(n) - m_request.water.milligramsPerLitre.of(n));
      const double weight = row.weight / (row.divisor() * row.divisor());
      against += weight * brings * (row.milligramsPerLitre - stands);
      along += weight * brings * brings;
    }
    constexpr double strongest = 5; // stocks poured undiluted are no refill
    return refill(AdviceKind::RefillByStocks, along > 0 ? std::clamp(against / along, 0.0, strongest) : 0);
  }

  /// The tank with its missing water, as the water that salts are solved for.
  Water tankAsWater(const FeedContent& content) const {
    Water out = pureWater();
    out.milligramsPerLitre = content.milligramsPerLitre;
    out.alkalinityMeqPerL = content.alkalinityMeqPerL;
    return out;
  }

  Advice bySalts() {
    constexpr auto kind = AdviceKind::RefillBySalts;
    if (m_request.rows.empty()) return closed(kind, NotOpen::NoTarget);
    auto then = m_request.stands;
    then.pour(m_request.water, m_room);
    const auto mixed = then.perLitre();
    if (!mixed) return closed(kind, NotOpen::NoWater);
    SolveRequest solving;
    solving.water = tankAsWater(*mixed);
    solving.shelf = m_request.shelf;
    for (auto& product : solving.shelf) {
      product.locked.reset();
      product.least = {};
      product.most.reset();
    }
    solving.volume = then.volume;
    solving.rows = m_request.rows;
    auto answer = solve(solving);
    if (!answer || answer->grams.empty()) return closed(kind, NotOpen::NoSalts);
    Advice out;
    out.kind = kind;
    out.feedFactor = 0;
    out.pour = m_room;
    out.grams = answer->grams;
    for (std::size_t p = 0; p < out.grams.size(); ++p) {
      const auto& made = solving.shelf[p].composition;
      then.milligrams.addScaled(made.massFraction, out.grams[p].milligrams());
      then.alkalinityMeq += made.solutesPerGram.alkalinityEq * 1000 * out.grams[p].grams();
    }
    out.solved = std::move(answer).value();
    return seen(std::move(out), then);
  }

  Advice acidOrBase() {
    constexpr auto kind = AdviceKind::AcidOrBase;
    const auto perLitre = m_request.stands.perLitre();
    if (!perLitre || !m_ph) return closed(kind, NotOpen::NoWater);
    if (m_ph->ph >= m_request.lowPh && m_ph->ph <= m_request.highPh) return closed(kind, NotOpen::NotNeeded);
    const auto role = m_ph->ph > m_request.highPh ? ProductRole::Acid : ProductRole::Base;
    EquilibriumConditions conditions;
    conditions.temperature = m_request.air.temperature;
    conditions.carbonDioxideAtm = m_request.air.carbonDioxideAtm;
    for (std::size_t p = 0; p < m_request.shelf.size(); ++p) {
      const auto& product = m_request.shelf[p];
      if (product.composition.role != role) continue;
      const auto dose = doseToReach({solutesPerLitre(*perLitre), feedWaterKgPerLitre, conditions},
                                    product.composition.solutesPerGram, m_request.wantedPh);
      if (!dose) continue;
      Advice out;
      out.kind = kind;
      out.acid = p;
      out.grams.assign(m_request.shelf.size(), Mass{});
      out.grams[p] = Mass::fromGrams(dose->gramsPerLitre * m_request.stands.volume.litres());
      if (product.densityKgPerL)
        out.acidVolume = Volume::fromMillilitres(out.grams[p].grams() / *product.densityKgPerL);
      auto then = m_request.stands;
      then.milligrams.addScaled(product.composition.massFraction, out.grams[p].milligrams());
      then.alkalinityMeq += product.composition.solutesPerGram.alkalinityEq * 1000 * out.grams[p].grams();
      return seen(std::move(out), then);
    }
    return closed(kind, NotOpen::NoAcid);
  }

  Advice bleed() {
    constexpr auto kind = AdviceKind::Bleed;
    if (m_request.caps.empty()) return closed(kind, NotOpen::NoTarget);
    Advice out;
    out.kind = kind;
    for (const auto& cap : m_request.caps) {
      const auto litres =
          bleedFor(cap.nutrient, cap.milligramsPerLitre, m_request.flow, m_request.plan.refill);
      if (!litres) return closed(kind, NotOpen::WaterAboveCap);
      if (*litres > out.bleedLPerDay) {
        out.bleedLPerDay = *litres;
        out.ballast = cap.nutrient;
      }
    }
    if (!out.ballast) return closed(kind, NotOpen::NotNeeded);
    auto flow = m_request.flow;
    flow.drainLPerDay = std::max(flow.drainLPerDay, out.bleedLPerDay);
    return seen(std::move(out), m_request.stands, flow, m_request.plan.refill);
  }

  Advice dump() {
    constexpr auto kind = AdviceKind::Dump;
    constexpr int lookAhead = 365;
    if (m_request.caps.empty()) return closed(kind, NotOpen::NoTarget);
    auto plan = BalancePlan{m_request.stands,
                            m_request.plan.full,
                            m_request.plan.refill,
                            m_request.plan.rule,
                            m_request.flow,
                            m_request.air,
                            false,
                            0};
    Advice out;
    out.kind = kind;
    auto day = plan.start;
    for (int d = 0; d <= lookAhead && !out.ballast; ++d) {
      for (const auto& cap : m_request.caps)
        if (day.milligramsPerLitre(cap.nutrient) > cap.milligramsPerLitre) {
          out.ballast = cap.nutrient;
          out.afterDays = d;
        }
      day = passed(day, plan.flow, 1).content;
      day.pour(plan.refill, refillNow(plan.rule, day.volume, plan.full));
    }
    if (!out.ballast) return closed(kind, NotOpen::NotNeeded);
    ReservoirContent fresh;
    fresh.pour(m_request.plan.refill, m_request.plan.full);
    return seen(std::move(out), fresh);
  }

  Advice ofUptake() {
    constexpr auto kind = AdviceKind::FeedByUptake;
    if (!(m_request.flow.transpirationLPerDay > 0)) return closed(kind, NotOpen::NotNeeded);
    Advice out;
    out.kind = kind;
    out.feed = feedByUptake(m_request.flow, m_request.water);
    out.pour = m_room;
    auto then = m_request.stands;
    then.pour(out.feed, m_room);
    return seen(out, then, m_request.flow, out.feed);
  }

  const AdviceRequest& m_request;
  Volume m_room;
  Result<ReservoirReadings> m_ph = problemAt(ProblemCode::NoEquilibrium, "tank");
};

} // namespace

RuleAnswer byGrowersRule(const GrowersRule& rule, Conductivity reads, std::optional<double> ph) {
  RuleAnswer out;
  if (reads > rule.highEc) out.refillFactor = rule.highFactor;
  if (reads < rule.lowEc) out.refillFactor = rule.lowFactor;
  if (ph && *ph > rule.highPh) out.ph = PhAdvice::MoreAmmoniumOrAcid;
  if (ph && *ph < rule.lowPh) out.ph = PhAdvice::NoAmmoniumOrAcid;
  return out;
}

std::vector<Advice> adviceFor(const AdviceRequest& request) {
  return Advisor(request).all();
}

std::optional<double> bleedFor(Nutrient nutrient, double capMgPerL, const ReservoirFlow& flow,
                               const FeedContent& refill) {
  const double brings = refill.milligramsPerLitre.of(nutrient);
  const double comes = (flow.transpirationLPerDay + flow.evaporationLPerDay - flow.rainLPerDay) * brings;
  const double taken =
      flow.transpirationLPerDay * (flow.uptake.shareOfConcentration.of(nutrient) * capMgPerL +
                                   flow.uptake.millimolesPerLitre.of(nutrient) * molarMass(nutrient));
  if (comes <= taken) return 0;
  if (brings >= capMgPerL) return std::nullopt;
  return (comes - taken) / (capMgPerL - brings);
}

FeedContent feedByUptake(const ReservoirFlow& flow, const FeedContent& refill) {
  FeedContent out;
  const double poured = flow.transpirationLPerDay + flow.evaporationLPerDay - flow.rainLPerDay;
  const double perLitre = poured > 0 ? flow.transpirationLPerDay / poured : 1;
  for (const auto n : keptNutrients)
    out.milligramsPerLitre.add(n, std::max(flow.uptake.millimolesPerLitre.of(n) * molarMass(n) * perLitre,
                                           refill.milligramsPerLitre.of(n)));
  ReservoirContent litre{Volume::fromLitres(1), out.milligramsPerLitre, 0};
  out.alkalinityMeqPerL = -litre.unbalancedMeq();
  return out;
}

} // namespace butte::core
