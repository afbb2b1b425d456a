#pragma once
#include "base/change.h"
#include "book/record.h"

#include <vector>

namespace butte::book {

/// What changed between two formulas: first what a hand changed, then what followed from it, the weights with
/// what each moves.
std::vector<core::Change> formulaChanges(const Json& before, const Json& after);

} // namespace butte::book
