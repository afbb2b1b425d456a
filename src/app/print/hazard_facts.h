#pragma once
#include "cautions.h"

namespace butte::app {

class FormulaEditor;

/// What is known of a shelf product's hazards: the catalogue's (by its own word, or by the same substance),
/// and what the grower read off the label.
words::HazardFacts hazardFacts(const FormulaEditor& editor, std::size_t product);

} // namespace butte::app
