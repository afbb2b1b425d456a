#pragma once
#include "practice/debrief.h"

#include <QString>

namespace butte::app {

class BenchEdits;
class UnitsShown;

/// "Two cups stood there, and the wrong one was tipped": a moment in the list.
QString momentHeading(const BenchEdits& run, const core::Moment& moment);
/// What was told, what was true, and what would have been right.
QString momentText(const BenchEdits& run, const UnitsShown& units, const core::Moment& moment);

} // namespace butte::app
