#pragma once
#include "water/verdict.h"

#include <QString>

namespace butte::app {

class UnitsShown;

/// "sodium", "bicarbonate on leaves".
QString verdictName(const core::Verdict& verdict);
/// A limit of the verdict's property (of EC a figure too), without its unit.
QString inVerdictUnit(const core::Verdict& verdict, double value, const UnitsShown& units);
/// " mg/L", or nothing where the property has no unit.
QString verdictUnit(const core::Verdict& verdict, const UnitsShown& units);
/// The figure as measured or guessed, with its unit; it must have one.
QString verdictFigure(const core::Verdict& verdict, const UnitsShown& units);

} // namespace butte::app
