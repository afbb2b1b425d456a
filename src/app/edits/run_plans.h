#pragma once
#include "run/bag_fills.h"

namespace butte::app {

class FormulaEditor;

/// What the formula as it stands sets out to weigh, on its scales: tanks with salts, or one vessel, what is
/// in it counted. Without vessels where there is nothing to weigh.
core::RunPlan runPlanOf(const FormulaEditor& editor);

/// So many bags of each salt, each for one fill of its vessel.
core::RunPlan bagsOf(const FormulaEditor& editor, std::size_t count);

} // namespace butte::app
