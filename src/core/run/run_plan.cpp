#include "run/run_plan.h"

#include "bench/weigh_plan.h"
#include "formula/direct_mix.h"
#include "formula/mix.h"

#include <algorithm>

namespace butte::core {

RunVessel runVessel(const std::string& name, Volume volume, double factor,
                    const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& weights) {
  RunVessel out{name, volume, factor, {}};
  for (const auto product : mixingOrder(shelf, weights, factor > 1 ? MixingInto::Tank : MixingInto::Vessel))
    out.steps.push_back({product, weights[product], {}});
  return out;
}

Volume waterFirst(const RunVessel& vessel) {
  constexpr double ofATank = 0.5;
  if (vessel.isBag) return {};
  const auto stands = vessel.volume * (vessel.factor > 1 ? ofATank : waterBeforeSalts);
  return std::max(Volume{}, stands - vessel.had.volume);
}

std::vector<Mass> gramsPerLitreOfFeed(const RunPlan& plan) {
  std::vector<Mass> out(plan.shelf.size());
  for (const auto& vessel : plan.vessels)
    for (const auto& step : vessel.steps)
      out[step.product] = out[step.product] + step.planned * (1 / (vessel.volume.litres() * vessel.factor));
  return out;
}

namespace {

Mass toleranceIn(const NutrientAmounts& feedMgPerLitre, const RunPlan& plan, const RunVessel& vessel,
                 const RunStep& step, Mass readability) {
  constexpr double ofItself = 0.02;
  const auto& fractions = plan.shelf[step.product].composition.massFraction;
  double least = ofItself * step.planned.grams();
  const double litresOfFeed = vessel.volume.litres() * vessel.factor;
  for (const auto n : allNutrients) {
    const double fraction = fractions.of(n);
    // What it brings by the way (sodium of a chelate) does not bind it.
    constexpr double byTheWay = 0.01;
    if (n == Nutrient::Na || n == Nutrient::Cl || fraction < byTheWay) continue;
    const double allowed = worthASecondLookPercent / 100 * feedMgPerLitre.of(n) / 1000 * litresOfFeed;
    least = std::min(least, allowed / fraction);
  }
  return Mass::fromGrams(std::max(least, readability.grams() / 2));
}

NutrientAmounts plannedFeed(const RunPlan& plan) {
  return mix(plan.water, plan.shelf, gramsPerLitreOfFeed(plan), Volume::fromLitres(1)).milligramsPerLitre;
}

} // namespace

Mass toleranceOf(const RunPlan& plan, const RunVessel& vessel, const RunStep& step, Mass readability) {
  return toleranceIn(plannedFeed(plan), plan, vessel, step, readability);
}

void setTolerances(RunPlan& plan, Mass readability) {
  const auto feed = plannedFeed(plan);
  for (auto& vessel : plan.vessels)
    for (auto& step : vessel.steps)
      step.tolerance = toleranceIn(feed, plan, vessel, step, readability);
}

void fitScales(RunPlan& plan, const std::vector<Scale>& scales) {
  if (scales.empty()) return setTolerances(plan, Mass{});
  const auto feed = plannedFeed(plan);
  for (auto& vessel : plan.vessels) {
    std::vector<Mass> weights(plan.shelf.size());
    for (const auto& step : vessel.steps)
      weights[step.product] =
          weights[step.product] + std::max(Mass{}, step.planned - vessel.had.of(step.product));
    for (const auto& weighed : weighPlan(plan.shelf, weights, scales))
      for (auto& step : vessel.steps) {
        if (step.product != weighed.product) continue;
        const auto& scale = scales[weighed.scale];
        step.tolerance = toleranceIn(feed, plan, vessel, step, weighed.step);
        step.mostAtOnce = scale.spoons ? Mass{} : scale.capacity;
        step.scale = scale.name;
        step.readability = weighed.step;
      }
  }
}

} // namespace butte::core
