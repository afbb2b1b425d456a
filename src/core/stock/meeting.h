#pragma once
#include "solution/solutes.h"
#include "units/quantity.h"

#include <optional>
#include <string>

namespace butte::core {

/// What falls when two concentrates meet.
struct Meeting {
  std::string solid;          ///< one of EquilibriumData::solids(): "gypsum", "brushite" ...
  double saturationIndex = 0; ///< log10 of ion product over solubility product; above 0
};

/// The solid that `a` and `b` over-saturate together most, though neither does alone. Of those that form
/// within hours; fertilizer salts that merely give out are not among them. Nothing where all stays clear, or
/// where the chemistry knows no answer. Both per kilogram of the water in which they meet.
std::optional<Meeting> meetingOf(const Solutes& a, const Solutes& b, Temperature temperature);

/// The same for what a product brings all by itself.
std::optional<Meeting> meetingWithin(const Solutes& a, Temperature temperature);

} // namespace butte::core
