#include "run/run_result.h"

#include "formula/formula_answer.h"
#include "formula/mix.h"
#include "run/run_advice.h"
#include "run/run_trouble.h"

#include <algorithm>
#include <cmath>

namespace butte::core {

namespace {

constexpr double fullPercent = 100, asPlannedPercent = 2, closePercent = 10, tracesOfMgPerLitre = 0.001;

std::vector<Mass> gramsInLitreOfFeed(const RunPlan& plan, const RunState& state) {
  std::vector<Mass> out(plan.shelf.size());
  for (std::size_t v = 0; v < plan.vessels.size(); ++v) {
    const double litres = madeUpTo(plan, state, v).litres() * plan.vessels[v].factor;
    for (std::size_t p = 0; p < out.size(); ++p)
      out[p] = out[p] + state.vessels[v].of[p].in * (1 / litres);
  }
  return out;
}

/// Half a step of its scale for every load of a step, in a litre of feed.
std::vector<Mass> weighingLimits(const RunPlan& plan, const RunState& state) {
  std::vector<Mass> out(plan.shelf.size());
  for (std::size_t v = 0; v < plan.vessels.size(); ++v) {
    const double litres = madeUpTo(plan, state, v).litres() * plan.vessels[v].factor;
    for (const auto& step : plan.vessels[v].steps)
      out[step.product] = out[step.product] + step.readability * (loadsOf(state, step) / 2.0 / litres);
  }
  return out;
}

FeedSpread spreadOf(const RunPlan& plan, const RunState& state, const std::vector<Mass>& grams) {
  auto limits = usualErrors(plan.shelf);
  limits.weighing = weighingLimits(plan, state);
  const bool dosed =
      std::any_of(plan.vessels.begin(), plan.vessels.end(), [](const auto& v) { return v.factor > 1; });
  limits.dosingPercent = dosed ? 1 : 0;
  return feedSpread(plan.water, plan.shelf, grams, Volume::fromLitres(1), limits);
}

std::vector<RunDeviation> deviationsOf(const RunPlan& plan, const RunState& state) {
  std::vector<RunDeviation> out;
  for (std::size_t v = 0; v < plan.vessels.size(); ++v) {
    std::vector<bool> told(plan.shelf.size(), false);
    for (const auto& step : plan.vessels[v].steps) {
      const auto wanted = wantedOf(state, step), in = state.vessels[v].of[step.product].in;
      told[step.product] = true;
      if (wanted <= Mass{} && in <= Mass{}) continue; // all of it came as another product
      RunDeviation line{v, step.product, wanted, in, {}};
      if (wanted > Mass{}) line.percent = fullPercent * (in - wanted).grams() / wanted.grams();
      out.push_back(line);
    }
    for (std::size_t p = 0; p < told.size(); ++p)
      if (!told[p] && state.vessels[v].of[p].in > Mass{})
        out.push_back({v, p, {}, state.vessels[v].of[p].in, {}});
  }
  return out;
}

/// The weight that moves an element the farthest the way that it went.
std::optional<std::size_t> moverOf(const RunPlan& plan, const RunState& state, const RunResult& result,
                                   const ElementResult& element) {
  const double off = element.actualMgPerLitre - element.plannedMgPerLitre;
  std::optional<std::size_t> out;
  double most = 0;
  for (std::size_t d = 0; d < result.deviations.size(); ++d) {
    const auto& line = result.deviations[d];
    const double litres = madeUpTo(plan, state, line.vessel).litres() * plan.vessels[line.vessel].factor;
    const double share = (line.actual - line.wanted).grams() / litres *
                         plan.shelf[line.product].composition.massFraction.of(element.nutrient);
    if (share * off > most) most = share * off, out = d;
  }
  return out;
}

std::vector<ElementResult> elementsOf(const RunPlan& plan, const RunState& state, const RunResult& result,
                                      const FeedSpread& spread) {
  std::vector<ElementResult> out;
  for (const auto n : allNutrients) {
    ElementResult one{
        n, result.plannedMgPerLitre.of(n), result.actualMgPerLitre.of(n), spread.of(n).plusMinus, 0, {}};
    if (std::max(one.plannedMgPerLitre, one.actualMgPerLitre) < tracesOfMgPerLitre) continue;
    const double off = one.actualMgPerLitre - one.plannedMgPerLitre;
    one.offPercent =
        one.plannedMgPerLitre >= tracesOfMgPerLitre ? fullPercent * off / one.plannedMgPerLitre : fullPercent;
    one.movedBy = moverOf(plan, state, result, one);
    out.push_back(one);
  }
  return out;
}

std::vector<RunReading> readingsOf(const RunPlan& plan, const RunState& state) {
  std::vector<RunReading> out;
  const auto water =
      mix(plan.water, plan.shelf, std::vector<Mass>(plan.shelf.size()), Volume::fromLitres(1)).conductivity;
  for (std::size_t v = 0; v < plan.vessels.size(); ++v) {
    const auto& read = state.vessels[v].read;
    if (plan.vessels[v].factor > 1 || read.empty() || !read.back().conductivity) continue;
    RunReading one{v,
                   {expectedReading(plan, state, v).conductivity,
                    *read.back().conductivity,
                    water,
                    madeUpTo(plan, state, v),
                    {}},
                   {}};
    auto causes = causesOf(one.gap);
    // Nothing that a hand at a vessel of feed can check is a stock's strength.
    std::erase_if(causes, [](const PossibleCause& c) { return c.cause == ReadingCause::StockOff; });
    const bool fine = !causes.empty() && causes.front().cause == ReadingCause::WithinMeter;
    if (!fine) one.causes = std::move(causes);
    out.push_back(std::move(one));
  }
  return out;
}

/// What a run answers for: not what comes by the way, and N by its sum.
bool counts(Nutrient n) {
  return n != Nutrient::Na && n != Nutrient::Cl && n != Nutrient::NUrea && n != Nutrient::NNitrate &&
         n != Nutrient::NAmmonium;
}

} // namespace

RunResult runResult(const RunPlan& plan, const RunState& state, const RunPlan& first) {
  RunResult out;
  const auto litre = Volume::fromLitres(1);
  const auto grams = gramsInLitreOfFeed(plan, state);
  const auto planned = mix(first.water, first.shelf, gramsPerLitreOfFeed(first), litre);
  const auto actual = mix(plan.water, plan.shelf, grams, litre);
  const auto spread = spreadOf(plan, state, grams);
  out.plannedMgPerLitre = planned.milligramsPerLitre;
  out.actualMgPerLitre = actual.milligramsPerLitre;
  out.planned = planned.conductivity;
  out.actual = actual.conductivity;
  out.plusMinus = Conductivity::fromMilliSiemensPerCm(spread.conductivity.plusMinus);
  out.deviations = deviationsOf(plan, state);
  out.elements = elementsOf(plan, state, out, spread);
  return out;
}

RunJudgement judged(const RunPlan& plan, const RunState& state, const RunResult& result) {
  RunJudgement out;
  double worst = 0;
  for (std::size_t e = 0; e < result.elements.size(); ++e) {
    const auto& one = result.elements[e];
    if (!counts(one.nutrient)) continue;
    const double off = std::abs(one.actualMgPerLitre - one.plannedMgPerLitre);
    const bool within = off <= one.plusMinusMgPerLitre || std::abs(one.offPercent) <= asPlannedPercent;
    if (within) continue;
    out.check.push_back(e);
    worst = std::max(worst, std::abs(one.offPercent));
  }
  std::stable_sort(out.check.begin(), out.check.end(), [&](std::size_t a, std::size_t b) {
    return std::abs(result.elements[a].offPercent) > std::abs(result.elements[b].offPercent);
  });
  for (std::size_t v = 0; v < plan.vessels.size(); ++v) {
    const auto& of = state.vessels[v].of;
    const bool something = std::any_of(of.begin(), of.end(), [](const auto& s) { return s.in > Mass{}; });
    if (plan.vessels[v].isBag || !something) continue;
    if (!outcomeOf(plan, state, v).fallen.empty()) out.fallenIn.push_back(v);
  }
  out.readings = readingsOf(plan, state);
  const bool otherwise = std::any_of(out.readings.begin(), out.readings.end(),
                                     [](const RunReading& r) { return !r.causes.empty(); });
  out.verdict = !out.fallenIn.empty()  ? RunVerdict::FallsOut
                : worst > closePercent ? RunVerdict::Off
                : otherwise            ? RunVerdict::ReadsOtherwise
                : out.check.empty()    ? RunVerdict::AsPlanned
                                       : RunVerdict::Close;
  return out;
}

} // namespace butte::core
