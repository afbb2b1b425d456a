#include "bench/weigh_plan.h"

#include "bench/spoon.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

/// Common practice: blends and phosphates first, the big salts next (calcium nitrate leads its own tank; in
/// thin feed it meets phosphate and sulfate, so it waits until they are spread), traces after them, chelates
/// last; liquids such as acids when all else is in.
int mixingRank(const ShelfProduct& p, MixingInto into, AcidTurn acid) {
  const auto& m = p.composition.massFraction;
  if (isAcidOrBase(p)) return acid == AcidTurn::First ? -1 : 6;
  if (p.composition.role == ProductRole::Chelate) return 4;
  double trace = 0;
  for (const auto n : allNutrients)
    trace += isTraceElement(n) ? m.of(n) : 0;
  const bool mostlyTrace = trace > 0.05;
  if (mostlyTrace) return 3;
  if (m.of(Nutrient::P) > 0.002 || !p.composition.formula) return 0;
  if (m.of(Nutrient::Ca) > 0.002) return into == MixingInto::Vessel ? 5 : 1;
  return 2;
}

std::size_t scaleFor(Mass mass, const std::vector<Scale>& scales) {
  std::size_t best = 0;
  bool fits = false;
  for (std::size_t s = 0; s < scales.size(); ++s) {
    const bool takesIt = mass <= scales[s].capacity;
    if (scales[s].spoons && s > 0) continue; // weighed where it can be; spoons are tried beside it
    const bool better = scales[best].spoons ? true
                        : !fits             ? takesIt || scales[s].capacity > scales[best].capacity
                                            : takesIt && scales[s].readability < scales[best].readability;
    if (s == 0 || better) best = s;
    fits = fits || (takesIt && !scales[s].spoons);
  }
  return best;
}

constexpr int mostLoadsForFineness = 5;
void measureBySpoon(WeighStep& step, const ShelfProduct& product) {
  const auto spoon = levelTeaspoon(product);
  const auto measure = measuredBySpoon(step.exact, spoon);
  step.step = spoon.perTeaspoon * finestSpoon;
  step.shown = measure.mass;
  step.teaspoons = measure.teaspoons;
  step.spoonWeighed = spoon.weighed;
  step.loads = 1;
  step.errorPercent = measure.errorPercent;
  step.tooFine = step.errorPercent > coarsePercent;
}

void weighOn(WeighStep& step, const Scale& scale, const ShelfProduct& product) {
  if (scale.spoons) return measureBySpoon(step, product);
  step.teaspoons = 0;
  step.step = scale.readability;
  step.shown = roundedToStep(step.exact, scale.readability);
  constexpr double mostLoads = 1e6; // nobody weighs that often; the number says enough
  step.loads = static_cast<int>(std::clamp(std::ceil(step.shown / scale.capacity - 1e-9), 1.0, mostLoads));
  step.errorPercent = 50 * step.loads * (scale.readability / step.exact);
  step.tooFine = step.errorPercent > coarsePercent;
}

} // namespace

Mass roundedToStep(Mass exact, Mass step) {
  // The tiny lift keeps 2.675 on a 0.01 g scale from falling to 2.67 by its binary form.
  const double steps = exact / step;
  return step * std::floor(steps + 0.5 + 1e-9 * std::max(1.0, steps));
}

std::vector<std::size_t> mixingOrder(const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& weights,
                                     MixingInto into, AcidTurn acid) {
  std::vector<std::size_t> out;
  for (std::size_t j = 0; j < shelf.size(); ++j) {
    if (weights[j] > Mass{}) out.push_back(j);
  }
  std::stable_sort(out.begin(), out.end(), [&](std::size_t a, std::size_t b) {
    const int left = mixingRank(shelf[a], into, acid), right = mixingRank(shelf[b], into, acid);
    return left != right ? left < right : weights[a] > weights[b];
  });
  return out;
}

std::vector<WeighStep> weighPlan(const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& weights,
                                 const std::vector<Scale>& scales, const std::vector<Mass>& chosen,
                                 MixingInto into, AcidTurn acid) {
  std::vector<WeighStep> plan;
  for (const auto j : mixingOrder(shelf, weights, into, acid)) {
    WeighStep step;
    step.product = j;
    step.scale = scaleFor(weights[j], scales);
    step.exact = weights[j];
    weighOn(step, scales[step.scale], shelf[j]);
    // A finer scale in a few loads beats a coarse one in a single load.
    for (std::size_t s = 0; step.tooFine && s < scales.size(); ++s) {
      WeighStep finer = step;
      finer.scale = s;
      weighOn(finer, scales[s], shelf[j]);
      if (finer.loads <= mostLoadsForFineness && finer.errorPercent < step.errorPercent) step = finer;
    }
    if (!chosen.empty() && step.teaspoons == 0) step.shown = chosen[j];
    plan.push_back(step);
  }
  return plan;
}

} // namespace butte::core
