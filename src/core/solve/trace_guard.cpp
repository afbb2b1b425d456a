#include "solve/trace_guard.h"

#include "target/safe_ceilings.h"

#include <algorithm>

namespace butte::core {
namespace {

/// Mass fraction from which on a product is a trace element's salt, not a blend that holds some of it: the
/// weakest chelates and borates stand above, blends below (common practice).
constexpr double traceSalt = 0.05;

bool isAskedFor(const SolveRequest& request, Nutrient nutrient) {
  const auto isMeant = [nutrient](const auto& wish) { return wish.nutrient == nutrient; };
  const auto names = [nutrient](const std::vector<Nutrient>& side) {
    return std::find(side.begin(), side.end(), nutrient) != side.end();
  };
  return std::any_of(request.rows.begin(), request.rows.end(), isMeant) ||
         std::any_of(request.caps.begin(), request.caps.end(), isMeant) ||
         std::any_of(request.ratios.begin(), request.ratios.end(),
                     [&](const RatioWish& wish) { return names(wish.above) || names(wish.below); });
}

} // namespace

std::vector<TraceGuard> traceGuards(const SolveRequest& request) {
  std::vector<TraceGuard> out;
  for (const auto nutrient : allNutrients) {
    const auto most = isTraceElement(nutrient) ? unaskedMost(nutrient) : std::nullopt;
    if (!most || isAskedFor(request, nutrient)) continue;
    TraceGuard guard{nutrient, {}, std::max(0.0, *most - request.water.milligramsPerLitre.of(nutrient))};
    double held = 0;
    for (std::size_t j = 0; j < request.shelf.size(); ++j) {
      const auto& product = request.shelf[j];
      const double fraction = product.composition.massFraction.of(nutrient);
      if (fraction < traceSalt) continue;
      guard.salts.push_back(j);
      held += fraction * (product.locked.value_or(product.least) / request.volume).milligramsPerLitre();
    }
    guard.saltsMayBringMgPerL = std::max(guard.saltsMayBringMgPerL, held);
    if (!guard.salts.empty()) out.push_back(std::move(guard));
  }
  return out;
}

} // namespace butte::core
