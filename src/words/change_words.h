#pragma once
#include "base/change.h"

#include <string>
#include <vector>

namespace butte::words {

/// "potassium sulfate 22.3 to 22.7 kg: K +4.1 mg/L": one difference between two states of a thing.
std::string changeText(const core::Change& change);

/// All of them in one line, for a trail: at most a few, then "and 3 more".
std::string changesText(const std::vector<core::Change>& changes);

/// Why a version was kept: "used", "printed", "named", "brought in", "gone back" as a person reads it.
std::string versionReasonText(const std::string& why);

} // namespace butte::words
