#include "run/run_trouble.h"

#include "formula/mix.h"
#include "run/settled_vessel.h"

#include <algorithm>
#include <cmath>

namespace butte::core {

namespace {

constexpr double leastShiftPercent = 1;

/// What of a product may be in a vessel, its tolerance too.
Mass mayHold(const RunState& state, const RunVessel& vessel, std::size_t product) {
  Mass out;
  for (const auto& step : vessel.steps)
    if (step.product == product) out = out + wantedOf(state, step) + step.tolerance * state.ratio;
  return out;
}

Mass wantedIn(const RunState& state, const RunVessel& vessel, std::size_t product) {
  Mass out;
  for (const auto& step : vessel.steps)
    if (step.product == product) out = out + wantedOf(state, step);
  return out;
}

std::optional<std::size_t> vesselThatLacks(const RunPlan& plan, const RunState& state, std::size_t product) {
  for (std::size_t v = 0; v < plan.vessels.size(); ++v)
    for (const auto& step : plan.vessels[v].steps) {
      const auto& there = state.vessels[v].of[product];
      if (step.product == product && !there.skipped &&
          there.in + step.tolerance * state.ratio < wantedOf(state, step))
        return v;
    }
  return std::nullopt;
}

std::vector<Mass> contentOf(const RunPlan& plan, const RunState& state, std::size_t v) {
  std::vector<Mass> out(plan.shelf.size());
  for (std::size_t p = 0; p < out.size(); ++p)
    out[p] = state.vessels[v].of[p].in;
  return out;
}

} // namespace

std::vector<Misplaced> misplacedIn(const RunPlan& plan, const RunState& state) {
  std::vector<Misplaced> out;
  for (std::size_t v = 0; v < plan.vessels.size(); ++v)
    for (std::size_t p = 0; p < plan.shelf.size(); ++p) {
      const auto in = state.vessels[v].of[p].in, wanted = wantedIn(state, plan.vessels[v], p);
      if (in <= mayHold(state, plan.vessels[v], p)) continue;
      const auto lacks = vesselThatLacks(plan, state, p);
      // Too much of what belongs there is misplaced only where another vessel lacks it.
      if (wanted <= Mass{} || (lacks && *lacks != v && !state.vessels[v].of[p].accepted))
        out.push_back({v, p, in - wanted, lacks});
    }
  return out;
}

VesselOutcome outcomeOf(const RunPlan& plan, const RunState& state, std::size_t vessel) {
  const auto tank =
      settledVessel(plan, vessel, contentOf(plan, state, vessel), madeUpTo(plan, state, vessel));
  const auto& content = tank.tanks.front();
  VesselOutcome out{content.fallen, content.meetings, tank.notices, {}, true};
  out.known = std::none_of(tank.notices.begin(), tank.notices.end(),
                           [](const StockNotice& n) { return n.kind == StockWarning::PartlyUnknown; });
  // What is still to come is taken as it is planned; a product that came into this vessel instead is in it.
  auto grams = gramsPerLitreOfFeed(plan);
  const double litresOfFeed = madeUpTo(plan, state, vessel).litres() * plan.vessels[vessel].factor;
  for (const auto& stray : misplacedIn(plan, state)) {
    if (stray.vessel != vessel) continue;
    auto& planned = grams[stray.product];
    if (stray.lackedBy) {
      const auto& other = plan.vessels[*stray.lackedBy];
      for (const auto& step : other.steps)
        if (step.product == stray.product)
          planned = planned - step.planned * (1 / (other.volume.litres() * other.factor));
    }
    planned = planned + stray.mass * (1 / litresOfFeed);
  }
  const auto wanted = mix(plan.water, plan.shelf, gramsPerLitreOfFeed(plan), Volume::fromLitres(1));
  auto actual = mix(plan.water, plan.shelf, grams, Volume::fromLitres(1)).milligramsPerLitre;
  actual.addScaled(content.lostMgPerLitreOfFeed, -1);
  for (const auto n : allNutrients) {
    const double before = wanted.milligramsPerLitre.of(n);
    const double percent = before > 0 ? 100 * (actual.of(n) - before) / before : 0;
    if (std::abs(percent) >= leastShiftPercent) out.shiftsPercent.emplace_back(n, percent);
  }
  std::stable_sort(out.shiftsPercent.begin(), out.shiftsPercent.end(),
                   [](const auto& a, const auto& b) { return std::abs(a.second) > std::abs(b.second); });
  return out;
}

std::optional<double> ratioThatSuffices(const RunPlan& plan, const RunState& state, std::size_t vessel,
                                        std::size_t step) {
  const auto planned = plan.vessels[vessel].steps[step].planned;
  const auto there = hasOf(state, plan, vessel, step);
  if (there <= Mass{} || planned <= Mass{}) return std::nullopt;
  const double ratio = there / planned;
  constexpr double nearly = 1e-6;
  return ratio < state.ratio - nearly ? std::optional(ratio) : std::nullopt;
}

} // namespace butte::core
