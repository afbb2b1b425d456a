#include "run/run_state.h"

#include <algorithm>
#include <cmath>

namespace butte::core {

namespace {

constexpr double mostGrams = 1e9, mostLitres = 1e9, leastRatio = 0.01, mostRatio = 100;

RunPhase phaseOf(const RunPlan& plan, const RunState& state, std::size_t vessel, std::size_t step) {
  const auto& planned = plan.vessels[vessel].steps[step];
  const auto& there = state.vessels[vessel].of[planned.product];
  if (there.skipped) return RunPhase::Done;
  const auto missing = stillToWeigh(state, plan, vessel, step);
  const auto tolerance = planned.tolerance * state.ratio;
  if (missing < Mass{} - tolerance && !there.accepted) return RunPhase::Decide;
  const bool cupForIt = vesselOfCup(state, plan, planned.product) == vessel;
  const auto cup = cupForIt ? state.cup[planned.product] : Mass{};
  const bool enough = missing <= tolerance || there.accepted;
  if (!enough) {
    const bool loadIsFull = toWeighNow(state, plan, vessel, step) <= tolerance;
    return cup > Mass{} && loadIsFull ? RunPhase::Tip : RunPhase::Weigh;
  }
  if (cup > Mass{}) return RunPhase::Tip;
  if (there.in <= Mass{}) return RunPhase::Weigh;
  return there.clear || plan.vessels[vessel].isBag ? RunPhase::Done : RunPhase::Dissolve;
}

/// The first thing that is not done, vessel by vessel.
RunNext nextFrom(const RunPlan& plan, const RunState& state, std::size_t vessel) {
  for (auto v = vessel; v < plan.vessels.size(); ++v) {
    const auto& planned = plan.vessels[v];
    const auto& there = state.vessels[v];
    if (planned.steps.empty()) continue;
    const bool poured = there.water > planned.had.volume || waterFirst(planned) <= Volume{};
    if (!planned.isBag && !poured && !there.full) return {RunPhase::Pour, v, 0};
    for (std::size_t s = 0; s < planned.steps.size(); ++s) {
      const auto phase = phaseOf(plan, state, v, s);
      if (phase != RunPhase::Done) return {phase, v, s};
    }
    if (planned.isBag) continue;
    if (!there.full) return {RunPhase::TopUp, v, 0};
    if (there.read.empty()) return {RunPhase::Measure, v, 0};
  }
  return {RunPhase::Done, 0, 0};
}

/// Takes events one after the other.
class Teller {
public:
  explicit Teller(const RunPlan& plan) : m_plan(plan) {
    m_state.vessels.resize(plan.vessels.size());
    for (std::size_t v = 0; v < plan.vessels.size(); ++v)
      takeWhatIsIn(v);
    m_state.cup.resize(plan.shelf.size());
    m_state.cupAcceptedFor.resize(plan.shelf.size());
    m_state.taken.resize(plan.shelf.size());
  }

  std::optional<Problem> take(const RunEvent& event, const std::string& where) {
    m_where = where;
    m_at = event.atMilliseconds;
    m_begun = true;
    if (m_state.finished) return problem(ProblemCode::NotOneOf, "", {"an event after the end", "none"});
    if (m_state.who.empty()) m_state.who = event.by;
    return std::visit([this](const auto& deed) { return on(deed); }, event.deed);
  }

  RunState done() {
    m_state.next = next();
    return std::move(m_state);
  }

private:
  Problem problem(ProblemCode code, const std::string& key, std::vector<std::string> values) const {
    return problemAt(code, key.empty() ? m_where : m_where + "." + key, std::move(values));
  }
  std::optional<Problem> vesselWrong(std::size_t vessel) const {
    if (vessel < m_plan.vessels.size()) return std::nullopt;
    return problem(ProblemCode::OutOfRange, "vessel", {std::to_string(vessel), "a vessel of the run"});
  }
  std::optional<Problem> productWrong(std::size_t product) const {
    if (product < m_plan.shelf.size()) return std::nullopt;
    return problem(ProblemCode::OutOfRange, "product", {std::to_string(product), "a product of the run"});
  }
  std::optional<Problem> placeWrong(std::size_t product, std::size_t vessel) const {
    if (const auto wrong = productWrong(product)) return wrong;
    return vesselWrong(vessel);
  }
  std::optional<Problem> massWrong(Mass mass) const {
    if (std::isfinite(mass.grams()) && mass > Mass{} && mass.grams() <= mostGrams) return std::nullopt;
    return problem(ProblemCode::OutOfRange, "g", {std::to_string(mass.grams()), "more than 0"});
  }
  std::optional<Problem> volumeWrong(Volume volume) const {
    if (std::isfinite(volume.litres()) && volume > Volume{} && volume.litres() <= mostLitres)
      return std::nullopt;
    return problem(ProblemCode::OutOfRange, "volume_l", {std::to_string(volume.litres()), "more than 0"});
  }
  void takeWhatIsIn(std::size_t v) {
    auto& vessel = m_state.vessels[v];
    const auto& had = m_plan.vessels[v].had;
    vessel.of.resize(m_plan.shelf.size());
    vessel.water = had.volume;
    for (std::size_t p = 0; p < vessel.of.size(); ++p) {
      vessel.of[p].in = had.of(p);
      vessel.of[p].clear = had.of(p) > Mass{};
    }
  }
  StepState& at(std::size_t product, std::size_t vessel) { return m_state.vessels[vessel].of[product]; }

  std::optional<Problem> on(const did::Prepared&) { return std::nullopt; }
  std::optional<Problem> on(const did::Poured& deed) {
    if (const auto wrong = vesselWrong(deed.vessel)) return wrong;
    if (const auto wrong = volumeWrong(deed.volume)) return wrong;
    auto& vessel = m_state.vessels[deed.vessel];
    vessel.water = vessel.water + deed.volume;
    if (vessel.full) vessel.full = *vessel.full + deed.volume;
    return std::nullopt;
  }
  std::optional<Problem> on(const did::Weighed& deed) {
    if (const auto wrong = productWrong(deed.product)) return wrong;
    if (const auto wrong = massWrong(deed.mass)) return wrong;
    m_state.cup[deed.product] = m_state.cup[deed.product] + deed.mass;
    m_state.taken[deed.product] = m_state.taken[deed.product] + deed.mass;
    addLot(deed.product, deed.lot, deed.mass);
    return std::nullopt;
  }
  /// Back into the bag it came from last.
  std::optional<Problem> on(const did::TakenOut& deed) {
    if (const auto wrong = productWrong(deed.product)) return wrong;
    if (const auto wrong = massWrong(deed.mass)) return wrong;
    if (deed.mass > m_state.cup[deed.product])
      return problem(ProblemCode::OutOfRange, "g",
                     {std::to_string(deed.mass.grams()), "no more than lies in the cup"});
    m_state.cup[deed.product] = m_state.cup[deed.product] - deed.mass;
    m_state.taken[deed.product] = m_state.taken[deed.product] - deed.mass;
    auto left = deed.mass;
    for (auto lot = m_state.lots.rbegin(); lot != m_state.lots.rend() && left > Mass{}; ++lot) {
      if (lot->product != deed.product || lot->vessel) continue;
      const auto part = std::min(left, lot->mass);
      lot->mass = lot->mass - part;
      left = left - part;
    }
    std::erase_if(m_state.lots, [](const LotUse& lot) { return lot.mass <= Mass{}; });
    return std::nullopt;
  }
  std::optional<Problem> on(const did::Tipped& deed) {
    if (const auto wrong = placeWrong(deed.product, deed.vessel)) return wrong;
    auto& cup = m_state.cup[deed.product];
    if (cup <= Mass{}) return problem(ProblemCode::MissingKey, "product", {"something of it in the cup"});
    auto& step = at(deed.product, deed.vessel);
    lotsGoInto(deed.product, deed.vessel);
    step.in = step.in + cup;
    step.clear = false;
    step.tippedAtMilliseconds = m_at;
    cup = Mass{};
    m_state.cupAcceptedFor[deed.product].reset();
    return std::nullopt;
  }
  std::optional<Problem> on(const did::Clear& deed) {
    if (const auto wrong = placeWrong(deed.product, deed.vessel)) return wrong;
    if (at(deed.product, deed.vessel).in <= Mass{})
      return problem(ProblemCode::MissingKey, "product", {"something of it in the vessel"});
    at(deed.product, deed.vessel).clear = true;
    return std::nullopt;
  }
  std::optional<Problem> on(const did::Skipped& deed) {
    if (const auto wrong = placeWrong(deed.product, deed.vessel)) return wrong;
    at(deed.product, deed.vessel).skipped = true;
    return std::nullopt;
  }
  std::optional<Problem> on(const did::Substituted& deed) {
    if (const auto wrong = placeWrong(deed.product, deed.vessel)) return wrong;
    if (const auto wrong = productWrong(deed.by)) return wrong;
    if (const auto wrong = massWrong(deed.mass)) return wrong;
    if (deed.by == deed.product)
      return problem(ProblemCode::NotOneOf, "by", {m_plan.shelf[deed.by].id, "another product"});
    at(deed.product, deed.vessel).skipped = true;
    return std::nullopt;
  }
  std::optional<Problem> on(const did::Accepted& deed) {
    if (const auto wrong = placeWrong(deed.product, deed.vessel)) return wrong;
    at(deed.product, deed.vessel).accepted = true;
    if (m_state.cup[deed.product] > Mass{}) m_state.cupAcceptedFor[deed.product] = deed.vessel;
    return std::nullopt;
  }
  /// What was taken as it was may be too little now.
  std::optional<Problem> on(const did::Rescaled& deed) {
    if (!(deed.ratio >= leastRatio && deed.ratio <= mostRatio))
      return problem(ProblemCode::OutOfRange, "ratio", {std::to_string(deed.ratio), "from 0.01 to 100"});
    m_state.ratio = deed.ratio;
    for (auto& vessel : m_state.vessels) {
      vessel.full.reset();
      for (auto& step : vessel.of)
        step.accepted = false;
    }
    return std::nullopt;
  }
  std::optional<Problem> on(const did::ToppedUp& deed) {
    if (const auto wrong = vesselWrong(deed.vessel)) return wrong;
    if (const auto wrong = volumeWrong(deed.volume)) return wrong;
    m_state.vessels[deed.vessel].full = deed.volume;
    m_state.vessels[deed.vessel].fullAtMilliseconds = m_at;
    return std::nullopt;
  }
  std::optional<Problem> on(const did::Read& deed) {
    if (const auto wrong = vesselWrong(deed.vessel)) return wrong;
    if (!deed.conductivity && !deed.ph)
      return problem(ProblemCode::MissingKey, "", {"what was read: ec_ms_per_cm or ph"});
    m_state.vessels[deed.vessel].read.push_back(deed);
    return std::nullopt;
  }
  std::optional<Problem> on(const did::Discarded& deed) {
    if (const auto wrong = vesselWrong(deed.vessel)) return wrong;
    m_state.vessels[deed.vessel] = VesselState{}; // what it had is gone with it
    m_state.vessels[deed.vessel].of.resize(m_plan.shelf.size());
    for (auto& lot : m_state.lots)
      if (lot.vessel == deed.vessel) lot.discarded = true;
    return std::nullopt;
  }
  std::optional<Problem> on(const did::Paused&) { return m_state.paused = true, std::nullopt; }
  std::optional<Problem> on(const did::Resumed&) { return m_state.paused = false, std::nullopt; }
  std::optional<Problem> on(const did::HandedOver& deed) {
    if (deed.to.empty()) return problem(ProblemCode::MissingKey, "to", {"the initials of who goes on"});
    m_state.who = deed.to;
    return std::nullopt;
  }
  std::optional<Problem> on(const did::Struck&) { return std::nullopt; } // taken out before
  std::optional<Problem> on(const did::Finished&) { return m_state.finished = true, std::nullopt; }

  void addLot(std::size_t product, const std::string& lot, Mass mass,
              std::optional<std::size_t> vessel = std::nullopt) {
    const auto known = std::find_if(m_state.lots.begin(), m_state.lots.end(), [&](const LotUse& use) {
      return use.product == product && use.lot == lot && use.vessel == vessel && !use.discarded;
    });
    if (known != m_state.lots.end())
      known->mass = known->mass + mass;
    else
      m_state.lots.push_back({product, lot, mass, vessel, false});
  }
  void lotsGoInto(std::size_t product, std::size_t vessel) {
    std::vector<LotUse> gone;
    for (const auto& lot : m_state.lots)
      if (lot.product == product && !lot.vessel) gone.push_back(lot);
    std::erase_if(m_state.lots, [&](const LotUse& lot) { return lot.product == product && !lot.vessel; });
    for (const auto& lot : gone)
      addLot(product, lot.lot, lot.mass, vessel);
  }

  RunNext next() const {
    if (!m_begun) return {RunPhase::Prepare, 0, 0};
    if (m_state.finished) return {RunPhase::Done, 0, 0};
    return nextFrom(m_plan, m_state, 0);
  }

  const RunPlan& m_plan;
  RunState m_state;
  std::string m_where;
  std::int64_t m_at = 0;
  bool m_begun = false; ///< any event stands
};

/// Which events count: all but those that were struck, and the strikes.
Result<std::vector<bool>> standing(const std::vector<RunEvent>& events) {
  std::vector<bool> out(events.size(), true);
  for (std::size_t i = 0; i < events.size(); ++i) {
    const auto* strike = std::get_if<did::Struck>(&events[i].deed);
    if (!strike) continue;
    if (strike->event >= i || std::holds_alternative<did::Struck>(events[strike->event].deed) ||
        !out[strike->event])
      return problemAt(ProblemCode::NotOneOf, "events[" + std::to_string(i) + "].event",
                       {std::to_string(strike->event), "an earlier event that stands"});
    out[strike->event] = out[i] = false;
  }
  return out;
}

} // namespace

Mass wantedOf(const RunState& state, const RunStep& step) {
  return step.planned * state.ratio;
}

std::optional<std::size_t> vesselOfCup(const RunState& state, const RunPlan& plan, std::size_t product) {
  if (const auto& accepted = state.cupAcceptedFor[product]) return accepted;
  std::optional<std::size_t> out;
  for (std::size_t v = 0; v < plan.vessels.size(); ++v)
    for (const auto& step : plan.vessels[v].steps) {
      if (step.product != product) continue;
      out = v;
      const auto& there = state.vessels[v].of[product];
      const bool lacks = wantedOf(state, step) - there.in > step.tolerance * state.ratio;
      if (lacks && !there.skipped && !there.accepted) return out;
    }
  return out;
}

Mass hasOf(const RunState& state, const RunPlan& plan, std::size_t vessel, std::size_t step) {
  const auto product = plan.vessels[vessel].steps[step].product;
  const auto in = state.vessels[vessel].of[product].in;
  return vesselOfCup(state, plan, product) == vessel ? in + state.cup[product] : in;
}

Mass stillToWeigh(const RunState& state, const RunPlan& plan, std::size_t vessel, std::size_t step) {
  return wantedOf(state, plan.vessels[vessel].steps[step]) - hasOf(state, plan, vessel, step);
}

int loadsOf(const RunState& state, const RunStep& step) {
  constexpr double mostLoads = 1e6, nearly = 1e-9;
  if (step.mostAtOnce <= Mass{}) return 1;
  return static_cast<int>(
      std::clamp(std::ceil(wantedOf(state, step) / step.mostAtOnce - nearly), 1.0, mostLoads));
}

Mass toWeighNow(const RunState& state, const RunPlan& plan, std::size_t vessel, std::size_t step) {
  const auto& planned = plan.vessels[vessel].steps[step];
  const auto missing = stillToWeigh(state, plan, vessel, step);
  const int loads = loadsOf(state, planned);
  if (loads == 1) return missing;
  const bool cupForIt = vesselOfCup(state, plan, planned.product) == vessel;
  const auto cup = cupForIt ? state.cup[planned.product] : Mass{};
  return std::min(missing, wantedOf(state, planned) * (1.0 / loads) - cup);
}

Volume madeUpTo(const RunPlan& plan, const RunState& state, std::size_t vessel) {
  return state.vessels[vessel].full.value_or(plan.vessels[vessel].volume * state.ratio);
}

std::optional<RunNext> weighMeanwhile(const RunPlan& plan, const RunState& state) {
  if (state.next.phase == RunPhase::Measure) {
    const auto later = nextFrom(plan, state, state.next.vessel + 1);
    return later.phase == RunPhase::Done ? std::nullopt : std::optional(later);
  }
  if (state.next.phase != RunPhase::Dissolve) return std::nullopt;
  const auto v = state.next.vessel;
  for (auto s = state.next.step + 1; s < plan.vessels[v].steps.size(); ++s) {
    const auto phase = phaseOf(plan, state, v, s);
    if (phase == RunPhase::Done) continue;
    if (phase != RunPhase::Weigh && phase != RunPhase::Decide) return std::nullopt;
    return RunNext{phase, v, s};
  }
  return std::nullopt;
}

Result<RunState> runState(const RunPlan& plan, const std::vector<RunEvent>& events) {
  const auto stands = standing(events);
  if (!stands) return stands.problem();
  Teller teller(plan);
  for (std::size_t i = 0; i < events.size(); ++i) {
    if (!(*stands)[i]) continue;
    if (auto wrong = teller.take(events[i], "events[" + std::to_string(i) + "]")) return *wrong;
  }
  return teller.done();
}

} // namespace butte::core
