#pragma once
#include "run/bag_fills.h"

#include <string>
#include <vector>

namespace butte::app {

class FormulaEditor;

/// What the formula as it stands sets out to weigh, on its scales: tanks with salts, or one vessel, what is
/// in it counted. Without vessels where there is nothing to weigh.
core::RunPlan runPlanOf(const FormulaEditor& editor);

/// So many bags of each salt, each for one fill of its vessel.
core::RunPlan bagsOf(const FormulaEditor& editor, std::size_t count);

/// Salts for a vessel that is kept, each into a bag of its own; `grams` parallel to the formula's shelf, what
/// is beyond it left out.
core::RunPlan weightsFor(const FormulaEditor& editor, const std::string& vessel, core::Volume holds,
                         std::vector<core::Mass> grams);

} // namespace butte::app
