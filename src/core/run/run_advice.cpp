#include "run/run_advice.h"

#include "formula/mix.h"

#include <algorithm>
#include <cmath>

namespace butte::core {

namespace {

constexpr double worthTellingPercent = 0.5;

MixResult feedOf(const RunPlan& plan, const std::vector<Mass>& gramsPerLitre) {
  return mix(plan.water, plan.shelf, gramsPerLitre, Volume::fromLitres(1));
}

} // namespace

RescaleOffer offerRescale(const RunPlan& plan, const RunState& state) {
  RescaleOffer out;
  out.ratio = state.ratio;
  for (std::size_t v = 0; v < plan.vessels.size(); ++v)
    for (std::size_t s = 0; s < plan.vessels[v].steps.size(); ++s) {
      const auto planned = plan.vessels[v].steps[s].planned;
      if (planned > Mass{}) out.ratio = std::max(out.ratio, hasOf(state, plan, v, s) / planned);
    }
  for (std::size_t v = 0; v < plan.vessels.size(); ++v) {
    auto& more = out.more.emplace_back();
    for (std::size_t s = 0; s < plan.vessels[v].steps.size(); ++s)
      more.push_back(
          std::max(Mass{}, plan.vessels[v].steps[s].planned * out.ratio - hasOf(state, plan, v, s)));
    out.volumes.push_back(plan.vessels[v].volume * out.ratio);
  }
  return out;
}

std::optional<Overshoot> overshootOf(const RunPlan& plan, const RunState& state, std::size_t vessel,
                                     std::size_t step) {
  const auto& planned = plan.vessels[vessel].steps[step];
  const auto over = Mass{} - stillToWeigh(state, plan, vessel, step);
  if (over <= planned.tolerance * state.ratio) return std::nullopt;
  Overshoot out;
  out.over = over;
  out.takeOut = std::min(over, state.cup[planned.product]);
  const auto plain = gramsPerLitreOfFeed(plan);
  auto more = plain;
  more[planned.product] =
      more[planned.product] +
      over * (1 / (plan.vessels[vessel].volume.litres() * state.ratio * plan.vessels[vessel].factor));
  const auto wanted = feedOf(plan, plain), accepted = feedOf(plan, more);
  for (const auto n : allNutrients) {
    const double before = wanted.milligramsPerLitre.of(n), after = accepted.milligramsPerLitre.of(n);
    const double percent = before > 0 ? 100 * (after - before) / before : 0;
    if (percent >= worthTellingPercent) out.shiftsPercent.emplace_back(n, percent);
  }
  std::stable_sort(out.shiftsPercent.begin(), out.shiftsPercent.end(),
                   [](const auto& a, const auto& b) { return a.second > b.second; });
  out.planned = wanted.conductivity;
  out.accepted = accepted.conductivity;
  out.rescale = offerRescale(plan, state);
  return out;
}

ExpectedReading expectedReading(const RunPlan& plan, const RunState& state, std::size_t vessel) {
  std::vector<Mass> in(plan.shelf.size());
  for (std::size_t p = 0; p < in.size(); ++p)
    in[p] = state.vessels[vessel].of[p].in;
  const auto made = mix(plan.water, plan.shelf, in, madeUpTo(plan, state, vessel));
  return {made.conductivity, made.ph};
}

} // namespace butte::core
