#pragma once
#include "base/deed.h"

#include <string>

namespace butte::words {

/// "potassium sulfate held at 22.7 kg": a step of undo, a line of a history.
std::string deedText(const core::Deed& deed);

/// "US gal", "°C", "mS/cm": a unit's key as it is read.
std::string unitName(const std::string& key);

/// "EC", "pH", "level": a quantity that a meter reads.
std::string quantityName(const std::string& code);
/// What was done to a vessel, by its code: "filled to".
std::string tankDidName(const std::string& code);
/// "full mark": a fact of a vessel or another thing, by its key.
std::string factName(const std::string& key);

/// "feed used per day": what a place of `dosing` in a formula is called ("drawn/0/volume" too).
std::string dosingName(const std::string& place);

} // namespace butte::words
