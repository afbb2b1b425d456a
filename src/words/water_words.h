#pragma once
#include "water/examine.h"
#include "water/verdict.h"

#include <string>
#include <string_view>

/// A water in a grower's words.
namespace butte::words {

/// "NO3-N", "alkalinity as CaCO3", "chloride": how a report's row is called in a sentence.
std::string reportKeyName(const std::string& key);
/// "mg/L", "°dH", "mg/L as CaCO3".
std::string reportUnitName(const std::string& unit);

/// What does not fit, with its figures and its likely cause.
std::string doubtText(const core::DoubtFound& doubt);
/// Machine-readable code of the same, for butte-cli.
std::string_view code(core::WaterDoubt doubt);
/// "HCO3 201 stated as alkalinity as CaCO3": a way to read it, not yet done.
std::string rereadingText(const core::Rereading& way);
/// The same as a thing done, for undo: "HCO3 read as alkalinity as CaCO3".
std::string rereadingDone(const core::Rereading& way);

/// "fine", "watch", "too high", "not measured".
std::string levelText(core::VerdictLevel level);

} // namespace butte::words
