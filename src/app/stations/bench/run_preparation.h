#pragma once
#include <QString>
#include <functional>
#include <string>

namespace butte::app {

class BenchEdits;
class UnitsShown;

/// What has to stand ready for this very run: gear, vessels with their water, scales with what goes on each,
/// and which weight no scale here can take to 2 %. HTML.
/// `lastCheck`: what is known of a scale's last check, by its name.
QString runPreparation(const BenchEdits& run, const UnitsShown& units,
                       const std::function<QString(const std::string& scale)>& lastCheck);

} // namespace butte::app
