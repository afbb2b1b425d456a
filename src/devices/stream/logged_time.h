#pragma once
#include "stream/stream_row.h"

#include <string_view>

namespace butte::devices {

/// Which number comes first in "03/04/2026".
enum class DateOrder { DayFirst, MonthFirst };

/// Reads "2026-03-04 07:15", "2026-03-04T07:15:30Z", "...+01:00", "04.03.2026 07:15", "3/4/2026 7:15 PM" (by
/// `order`), "2026/03/04 07:15"; with `mayCount` also seconds or milliseconds since 1970. A day without a
/// time of day counts as none; so does what no calendar has. Not said: monostate.
LoggedTime parseLoggedTime(std::string_view text, DateOrder order, bool mayCount = false);

/// A day alone ("2026-03-04"), as midnight; and a time of day alone ("7:15:30"). Loggers have them in two
/// columns.
std::optional<CivilTime> parseLoggedDay(std::string_view text, DateOrder order);
std::optional<CivilTime> parseTimeOfDay(std::string_view text);

} // namespace butte::devices
