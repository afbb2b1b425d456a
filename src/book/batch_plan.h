#pragma once
#include "batch.h"
#include "formula/formula_answer.h"
#include "formula_document.h"

namespace butte::book {

/// The batch that a formula's sheet asks for, before anything is weighed: every product of every tank, then
/// what is given apart from the tanks; of a vessel that is mixed directly, what goes into it; in grams as
/// computed.
Batch plannedBatch(const exchange::FormulaDocument& document, const core::Answer& answer);

} // namespace butte::book
