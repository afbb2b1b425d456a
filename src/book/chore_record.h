#pragma once
#include "base/result.h"
#include "calendar/agenda.h"
#include "record.h"

#include <optional>
#include <string>
#include <string_view>

namespace butte::book {

/// "2026-03-02"; nothing for what is no day.
std::optional<core::Day> dayFromIso(std::string_view text);
std::string isoText(core::Day day);

/// Something that hands have to do. The body of a Kind::Chore record is this as JSON (docs/formats/book.md).
struct Chore {
  std::string name;
  core::Day starts;
  std::string repeat;           ///< an RRULE (RFC 5545) by the day or longer; empty: by afterDays, or once
  std::optional<int> afterDays; ///< so long after it was done last
  std::string note;
  std::string icsUid; ///< of the calendar that it came from
};

/// What was told of one occurrence of a chore, or of something that the book itself finds due. The body of a
/// Kind::ChoreLine record is this as JSON.
struct ChoreLine {
  std::string key; ///< a chore's uid, or a cause's (agenda_book.h)
  core::Day due;
  Moment at;
  std::string who;
  core::ChoreDid did = core::ChoreDid::Done;
  core::Day to; ///< of Moved
  std::string text;
};
std::string_view code(core::ChoreDid did);

/// Reads strictly: a Problem names the key, the value and what would be right. Whether a repeat is a rule is
/// for who makes it (ics/repeats.h); a rule that can't be read falls on no day.
core::Result<Chore> choreFromJson(const Json& json);
Json toJson(const Chore& chore);
core::Result<ChoreLine> choreLineFromJson(const Json& json);
Json toJson(const ChoreLine& line);

inline constexpr int mostAfterDays = 3650;

} // namespace butte::book
