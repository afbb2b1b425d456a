#include "formula/candidates.h"

#include "product/shipped.h"

#include <algorithm>

namespace butte::core {

std::vector<ShelfProduct> catalogueCandidates(const std::vector<ShelfProduct>& shelf) {
  std::vector<ShelfProduct> out;
  for (const auto& entry : catalogue()) {
    auto p = shippedProduct(entry);
    const bool there = std::any_of(shelf.begin(), shelf.end(), [&](const ShelfProduct& s) {
      const auto* same = s.composition.formula ? findSameSubstance(*s.composition.formula) : nullptr;
      return s.id == entry.id || same == &entry;
    });
    if (!there && !isAcidOrBase(p)) out.push_back(std::move(p));
  }
  return out;
}

} // namespace butte::core
