#include "print/hazard_facts.h"

#include "document/formula_editor.h"
#include "product/catalogue.h"

namespace butte::app {

words::HazardFacts hazardFacts(const FormulaEditor& editor, std::size_t product) {
  const auto& shelf = editor.document().given.request.shelf[product];
  const auto& own = editor.document().products[static_cast<std::size_t>(editor.indexOf(shelf.id))];
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
