#include "print/hazard_facts.h"

#include "product/catalogue.h"

#include <algorithm>

namespace butte::app {

words::HazardFacts hazardFacts(const exchange::FormulaDocument& document, const core::ShelfProduct& shelf) {
  const auto& all = document.allProducts;
  const auto at = std::find_if(all.begin(), all.end(), [&](const auto& p) { return p.id == shelf.id; });
  if (at == all.end()) return {shelf.name, {}, false, false, false};
  const auto& own = document.products[static_cast<std::size_t>(at - all.begin())];
  words::HazardFacts facts;
  facts.name = own.name;
  facts.acid = shelf.composition.role == core::ProductRole::Acid;
  facts.base = shelf.composition.role == core::ProductRole::Base;
  const auto& formula = shelf.composition.formula;
  const auto* entry = !own.catalogueId.empty() ? core::findInCatalogue(own.catalogueId)
                      : formula                ? core::findSameSubstance(*formula)
                                               : nullptr;
  if (entry) {
    facts.hazardCodes = entry->hazardCodes;
    facts.oxidiser = entry->oxidiser;
  }
  facts.hazardCodes.insert(facts.hazardCodes.end(), own.hazards.begin(), own.hazards.end());
  return facts;
}

} // namespace butte::app
