#pragma once
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace butte::devices {

/// A date and time of day as a clock on the wall shows it: its zone is not said.
struct CivilTime {
  int year = 0, month = 0, day = 0, hour = 0, minute = 0, second = 0;
  bool operator==(const CivilTime&) const = default;
};

/// When something was logged: not said, seconds since 1970 UTC, or by the clock on the wall.
using LoggedTime = std::variant<std::monostate, std::int64_t, CivilTime>;

/// One figure that a logger says, by the name that it has there.
struct StreamSample {
  std::string key; ///< a column's head, a line's word, a register, a topic; "#2" for the second that has none
  std::string text; ///< as it came: "1.62"
  std::string unit; ///< where it is said: "mS/cm"
  bool operator==(const StreamSample&) const = default;
};

/// What a logger says in one go.
struct StreamRow {
  LoggedTime at;
  std::vector<StreamSample> samples;
  bool isOld = false; ///< said before it was listened to, who knows when: to be shown, not to be kept
};

/// The number at the beginning of a text and the unit behind it ("1.62 mS/cm").
struct SaidFigure {
  double value = 0;
  std::string unit;
};
/// Nothing where it begins with none, or where what follows it is no unit ("12:30", "1.2.3").
std::optional<SaidFigure> saidFigure(std::string_view text);

/// Blanks at both ends taken away.
std::string_view trimmed(std::string_view text);

} // namespace butte::devices
