#pragma once
#include "base/result.h"
#include "calendar/agenda.h"

#include <string>
#include <string_view>
#include <vector>

/// Repeats as in RFC 5545.
namespace butte::ics {

/// Whether a text is an RRULE that repeats by the day or longer. Error: OutOfRange at "repeat".
core::Result<std::string> checkedRule(std::string_view rule);

/// The days of a rule from `from` up to and with `to`; at most mostRepeats of them. Nothing for what is no
/// rule.
std::vector<core::Day> repeatDays(const std::string& rule, core::Day starts, core::Day from, core::Day to);

inline constexpr int mostRepeats = 5000;

} // namespace butte::ics
