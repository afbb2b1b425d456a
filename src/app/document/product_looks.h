#pragma once
#include "formula_document.h"
#include "paint/hatch.h"

namespace butte::app {

/// The colour and hatch that a product owns in a formula: the grower's own choice, else the program's.
ProductLook lookIn(const exchange::FormulaDocument& formula, const std::string& productId);

} // namespace butte::app
