#pragma once
#include <QString>

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// What the levels of the tanks and their strengths, as typed, do to the feed: which line draws too little,
/// which tank is weak, and what the plants get of each element. As rich text.
QString unevenText(const FormulaEditor& editor, const UnitsShown& units);

} // namespace butte::app
