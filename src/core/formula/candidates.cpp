#include "formula/candidates.h"

#include "product/shipped.h"
#include "solve/trace_guard.h"
#include "stock/solubility.h"

#include <algorithm>

namespace butte::core {
namespace {

/// Less than this in a kilogram of water at 20 degC does not go into a stock: gypsum, lime (common practice).
constexpr double leastSolubleGramsPerKg = 20;

/// Acids and bases are asked for by themselves. Plain iron(II) rusts out above pH 5 (common practice: a
/// chelate is the iron to buy), and what hardly dissolves is no product for tanks.
bool isWorthBuying(const ShelfProduct& p) {
  const auto& c = p.composition;
  if (isAcidOrBase(p) || isPlainIron(p)) return false;
  const auto dissolves =
      c.formula ? anhydrousGramsPerKgWater(*c.formula, Temperature::fromCelsius(20)) : std::nullopt;
  return !dissolves || *dissolves >= leastSolubleGramsPerKg;
}

} // namespace

std::vector<ShelfProduct> catalogueCandidates(const std::vector<ShelfProduct>& shelf) {
  std::vector<ShelfProduct> out;
  for (const auto& entry : catalogue()) {
    auto p = shippedProduct(entry);
    const bool there = std::any_of(shelf.begin(), shelf.end(), [&](const ShelfProduct& s) {
      const auto* same = s.composition.formula ? findSameSubstance(*s.composition.formula) : nullptr;
      return s.id == entry.id || same == &entry;
    });
    if (!there && isWorthBuying(p)) out.push_back(std::move(p));
  }
  return out;
}

} // namespace butte::core
