#pragma once
#include "cautions.h"
#include "formula_document.h"

namespace butte::app {

/// What is known of the hazards of a product on a formula's shelf: the catalogue's (by its own word, or by
/// the same substance), and what the grower read off the label.
words::HazardFacts hazardFacts(const exchange::FormulaDocument& document, const core::ShelfProduct& product);

} // namespace butte::app
