#pragma once
#include "base/result.h"
#include "calendar/agenda.h"

#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::ics {

/// One entry of a calendar file: a whole day's, once or repeated.
struct Entry {
  std::string uid, summary, description;
  core::Day starts;
  std::string rule;                 ///< an RRULE; empty: once
  std::vector<core::Day> without;   ///< days of the rule that are left out
  std::optional<core::Day> instead; ///< of one occurrence: the rule's day that this entry stands for
};

/// A calendar file (RFC 5545, UTF-8, CRLF, lines folded). The same entries make the same bytes but for
/// `stampSeconds`.
std::string icsText(const std::vector<Entry>& entries, std::int64_t stampSeconds);

/// What a file brought, and how many of its entries were passed over because they name no day or repeat
/// within a day.
struct Read {
  std::vector<Entry> entries;
  int passedOver = 0;
};

/// A moment as the farm's own day. Seconds since 1970 UTC.
using LocalDay = std::function<core::Day(std::int64_t seconds)>;

/// Reads another's calendar: events and to-dos. A time in a zone (the file's own, or of the zones that are
/// known) or in UTC becomes the farm's day; a time without a zone is taken as it stands. Errors: BadFile for
/// what is no calendar.
core::Result<Read> readIcs(std::string_view text, const LocalDay& localDay);

inline constexpr std::size_t mostEntries = 5000, longestIcs = 4u << 20;

} // namespace butte::ics
