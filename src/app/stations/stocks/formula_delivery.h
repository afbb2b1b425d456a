#pragma once
#include "stock/delivered_feed.h"

#include <optional>

namespace butte::app {

class FormulaEditor;

/// What the formula in hand brings through its tanks, to be asked while the formula stays.
core::Delivery deliveryOf(const FormulaEditor& editor);
/// The meter's expected reading with so many mL of each stock (at the plan's factor) in a litre.
core::Conductivity expectedAt(const core::Delivery& delivery, const FormulaEditor& editor, double mlPerLitre);

/// How strong the stocks are over the planned, by the grower's readings against the curve of the formula;
/// nothing without two readings that tell it, or where they make no sense.
std::optional<double> stockStrengthByReadings(const FormulaEditor& editor);

} // namespace butte::app
