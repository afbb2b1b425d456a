#pragma once
#include <QString>

namespace butte::app {

class BenchEdits;
class UnitsShown;

/// What has to stand ready for this very run: gear, vessels with their water, scales with what goes on each,
/// and which weight no scale here can take to 2 %. HTML.
QString runPreparation(const BenchEdits& run, const UnitsShown& units);

} // namespace butte::app
