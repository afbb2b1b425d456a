#pragma once
#include <QString>

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// All stages of a crop side by side, a column each: what goes into every tank (or the one vessel), the dose,
/// the reading to expect, and the feed element by element. Empty where the formula has no stages.
QString stageCardHtml(FormulaEditor& editor, const UnitsShown& units, const QString& date);

} // namespace butte::app
