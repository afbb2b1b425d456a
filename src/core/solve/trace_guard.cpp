#include "solve/trace_guard.h"

#include "target/safe_ceilings.h"

#include <algorithm>

namespace butte::core {
namespace {

/// Mass fraction from which on a product is a trace element's salt, not a blend that holds some of it: the
/// weakest chelates and borates stand above, blends below (common practice).
constexpr double traceSalt = 0.05;

/// Mass fraction of iron from which on a product is meant as iron.
constexpr double leastIron = 0.01;

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

/// What a salt is bound to bring: its weight where it is held, the least of it else.
double heldMgPerL(const SolveRequest& request, const ShelfProduct& product, Nutrient nutrient) {
  return product.composition.massFraction.of(nutrient) *
         (product.locked.value_or(product.least) / request.volume).milligramsPerLitre();
}

bool isFreeIronChelate(const ShelfProduct& product) {
  return product.composition.massFraction.of(Nutrient::Fe) >= leastIron && !isPlainIron(product) &&
         product.composition.role == ProductRole::Chelate && !product.locked && !product.most;
}

/// Nothing where no chelate can stand in.
std::optional<TraceGuard> ironGuard(const SolveRequest& request) {
  if (std::none_of(request.shelf.begin(), request.shelf.end(), isFreeIronChelate)) return std::nullopt;
  TraceGuard guard{GuardReason::ChelateInstead, Nutrient::Fe, {}, 0};
  for (std::size_t j = 0; j < request.shelf.size(); ++j) {
    if (!isPlainIron(request.shelf[j])) continue;
    guard.salts.push_back(j);
    guard.saltsMayBringMgPerL += heldMgPerL(request, request.shelf[j], Nutrient::Fe);
  }
  return guard.salts.empty() ? std::nullopt : std::optional(std::move(guard));
}

} // namespace

bool isPlainIron(const ShelfProduct& product) {
  return product.composition.massFraction.of(Nutrient::Fe) >= leastIron &&
         product.composition.solutesPerGram.of(Component::Fe) > 0;
}

std::vector<TraceGuard> traceGuards(const SolveRequest& request) {
  std::vector<TraceGuard> out;
  for (const auto nutrient : allNutrients) {
    const auto most = isTraceElement(nutrient) ? unaskedMost(nutrient) : std::nullopt;
    if (!most || isAskedFor(request, nutrient)) continue;
    TraceGuard guard{GuardReason::NobodyAsked,
                     nutrient,
                     {},
                     std::max(0.0, *most - request.water.milligramsPerLitre.of(nutrient))};
    double held = 0;
    for (std::size_t j = 0; j < request.shelf.size(); ++j) {
      const auto& product = request.shelf[j];
      if (product.composition.massFraction.of(nutrient) < traceSalt) continue;
      guard.salts.push_back(j);
      held += heldMgPerL(request, product, nutrient);
    }
    guard.saltsMayBringMgPerL = std::max(guard.saltsMayBringMgPerL, held);
    if (!guard.salts.empty()) out.push_back(std::move(guard));
  }
  if (auto iron = ironGuard(request)) out.push_back(std::move(*iron));
  return out;
}

} // namespace butte::core
