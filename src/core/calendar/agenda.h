#pragma once
#include <chrono>
#include <functional>
#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// A day on the farm's own wall: no zone, no hour.
using Day = std::chrono::sys_days;

/// Something that hands have to do, again and again or once.
struct Chore {
  std::string key; ///< by which what was done is told of it
  Day starts;
  std::string rule;             ///< an RRULE (RFC 5545) of days; empty: no fixed days
  std::optional<int> afterDays; ///< so long after it was done last, instead of a rule; neither: once
};

enum class ChoreDid { Done, LeftOut, Moved };

/// What was told of one occurrence.
struct ChoreTold {
  std::string key;
  Day due; ///< the day it was due by its rule
  ChoreDid did = ChoreDid::Done;
  Day to; ///< of Moved
  std::int64_t atSeconds = 0;
};

/// One thing to do on one day.
struct Due {
  std::size_t chore = 0; ///< index into the chores
  Day due;               ///< by its rule: what is told of it names this day
  Day on;                ///< where it was moved to, else the same
  int missed = 0;        ///< earlier ones of a rule that nobody did either
};

/// Every day from `from` up to and with `to` on which the rule falls, beginning at `starts`. In the order of
/// time.
using Repeats = std::function<std::vector<Day>(const std::string& rule, Day starts, Day from, Day to)>;

/// What is to be done: what is late (the newest of a rule, with how many before it were missed), and what
/// falls on the days up to and with `to`. What was done or left out is not in it. In the order of time.
std::vector<Due> agenda(const std::vector<Chore>& chores, const std::vector<ChoreTold>& told, Day today,
                        Day to, const Repeats& repeats);

/// A chore that nobody did for longer is late since then at most: older ones are not counted.
inline constexpr int mostDaysLate = 370;

} // namespace butte::core
