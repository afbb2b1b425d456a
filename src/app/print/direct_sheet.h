#pragma once
#include <QString>

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// The part of the bench sheet for one vessel that is mixed directly: water, salts with what the meter should
/// show after each, the last water, the acid.
QString directSheetHtml(const FormulaEditor& editor, const UnitsShown& units);

} // namespace butte::app
