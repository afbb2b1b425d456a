#pragma once
#include "book/reading.h"

#include <QString>
#include <string>
#include <string_view>

namespace butte::app {

/// The unit of the person's own for a quantity, as convert() names it; empty for pH.
std::string preferredUnit(std::string_view quantity);
/// A kept value in that unit.
double readingIn(std::string_view quantity, double kept);
/// "1.58 mS/cm", "790 ppm (500)", "5.8".
QString readingValueText(std::string_view quantity, double kept);
/// ", mS/cm": behind the quantity's name over an axis; empty for pH.
QString readingUnitNote(std::string_view quantity);
/// As it was typed, where that was in the person's unit; else turned into it.
QString readingText(const book::Reading& reading);

} // namespace butte::app
