#pragma once
#include "formula_document.h"

namespace butte::app {

/// From now on pictures show the formula's products in the colours and hatches that the grower chose.
void adoptLooks(const exchange::FormulaDocument& formula);

} // namespace butte::app
