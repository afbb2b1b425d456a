#pragma once
#include "units/quantity.h"

#include <optional>
#include <string_view>

namespace butte::devices {

/// What one line of a pen or a bench meter says; nothing of what it does not say.
struct PenReading {
  std::optional<core::Conductivity> conductivity;
  std::optional<double> ph;
  std::optional<core::Temperature> temperature;
  std::optional<bool> stable; ///< nothing where the line does not say

  bool isEmpty() const { return !conductivity && !ph; }
};

/// Reads "EC 1.45 mS/cm 21.3 C", "1450 uS/cm", "pH 5.82", "ST,pH,5.82,21.3,C". As with scales, a wrong
/// reading is worse than none: an unknown word, a value without a unit, "ppm" whose scale is not named
/// (ppm500, ppm640, ppm700) and a value said twice make it empty. So does a pH outside 0 to 14 or a
/// conductivity below zero.
PenReading readPenLine(std::string_view line);

} // namespace butte::devices
