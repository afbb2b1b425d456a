#include "formula/candidates.h"

#include "product/catalogue.h"

#include <algorithm>

namespace butte::core {

std::vector<ShelfProduct> catalogueCandidates(const std::vector<ShelfProduct>& shelf) {
  std::vector<ShelfProduct> out;
  for (const auto& entry : catalogue()) {
    ShelfProduct p;
    p.id = entry.id;
    p.name = entry.shortName;
    p.composition = entry.composition;
    p.liquid = entry.liquid;
    p.densityKgPerL = entry.densityKgPerL;
    const bool there = std::any_of(shelf.begin(), shelf.end(), [&](const ShelfProduct& s) {
      const auto* same = s.composition.formula ? findSameSubstance(*s.composition.formula) : nullptr;
      return s.id == entry.id || same == &entry;
    });
    if (!there && !isAcidOrBase(p)) out.push_back(std::move(p));
  }
  return out;
}

} // namespace butte::core
