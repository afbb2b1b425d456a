#pragma once
#include "units/quantity.h"

#include <optional>
#include <string>
#include <string_view>

namespace butte::devices {

enum class ScaleStatus {
  Weight,
  Overload,
  Underload,
  Busy,   ///< it can't answer now: moving, or at work
  Fault,  ///< an error of the scale's own
  Nothing ///< no weight that can be trusted stands in the line
};

/// What one line of a scale says.
struct ScaleReading {
  ScaleStatus status = ScaleStatus::Nothing;
  std::optional<core::Mass> mass; ///< with Weight alone; below zero when less lies on it than at its tare
  std::string unit;               ///< of its display: "mg", "g", "kg", "oz", "lb", "lb:oz"; with Weight alone
  std::optional<bool> stable;     ///< nothing where the line does not say
  int decimals = 0;               ///< of the value as displayed, in its unit (of ounces for "lb:oz")
};

/// Reads a line as scales send it: a sign, a value, a unit, words or marks for stable and moving, gross and
/// net, in any of the usual arrangements (common practice of serial scales; scale/scale_words.cpp). A wrong
/// weight is worse than none: whatever in the line is not understood makes it Nothing, and so do a value
/// without a unit, a tare, a held value, a comma that may be a point or part thousands, and two weights in
/// one line. Control characters around it (STX, ETX, CR) are no part of it.
ScaleReading readScaleLine(std::string_view line);

} // namespace butte::devices
