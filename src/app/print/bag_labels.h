#pragma once
#include <QStringList>

namespace butte::app {

class BenchEdits;
class UnitsShown;

/// A label for each filled bag: what is in it by weight, what it makes, day, initials, and the hazards of the
/// product as bought. One block of paper each (print/paper.h).
QStringList bagLabels(const BenchEdits& run, const UnitsShown& units);

} // namespace butte::app
