#pragma once
#include <QString>

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// The bottle that holds for many fills what the scale can't weigh for one: its recipe, and how much of it
/// goes into each fill of the tank. Empty where none is needed.
QString preStockHtml(const FormulaEditor& editor, const UnitsShown& units, std::size_t tank);

} // namespace butte::app
