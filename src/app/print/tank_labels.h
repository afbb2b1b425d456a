#pragma once
#include <QStringList>

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// A label for each tank: what it holds in words and by weight, strength, dose, day, room for initials, and
/// the hazards of its ingredients as bought (said to be that: no classification of the mixture).
/// One block of paper each (print/paper.h).
QStringList tankLabels(const FormulaEditor& editor, const UnitsShown& units, const QString& date);

} // namespace butte::app
