#pragma once
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::reading {

/// In which order a date's numbers stand where the year comes last: 3/4/2026.
enum class DateOrder { Unknown, DayFirst, MonthFirst };

/// A day and perhaps a time of it as a text says it; no zone unless it states one.
struct DateRead {
  int year = 0, month = 0, day = 0;
  std::optional<int> secondOfDay;
  std::optional<int> offsetMinutes; ///< from UTC, where it is stated
  bool orderMatters = false;        ///< day and month could change places
  std::string iso() const;          ///< "2026-03-04", "2026-03-04T07:15:00", "...Z", "...+02:00"
};

/// "2026-03-04", "4.3.2026 7:15", "03/04/26 7:15 PM", "4 March 2026", "Mar-04-2026", "20260304", a
/// spreadsheet's day number ("46085.5"), a logger's seconds since 1970; nothing where it is no date. Names of
/// months are those of data/reading_words.csv.
std::optional<DateRead> dateIn(std::string_view text, DateOrder order);

/// "7:15", "07:15:30", "7.15 pm", "19h15": seconds since midnight.
std::optional<int> clockIn(std::string_view text);

/// What a column of dates says of its order: by a number above 12, by dots (day first everywhere); Unknown
/// where nothing says it and day and month could change places. `matters` false where no date is unclear.
struct DateOrderFound {
  DateOrder order = DateOrder::Unknown;
  bool matters = false;
  DateOrder likelier = DateOrder::DayFirst; ///< by which the days follow one another most closely
};
DateOrderFound dateOrderOf(const std::vector<std::string>& cells);

} // namespace butte::reading
