#include "stream/logged_time.h"

#include <array>
#include <charconv>
#include <chrono>

namespace butte::devices {

namespace {

/// Takes whole numbers and marks off the front of a text.
class Taker {
public:
  explicit Taker(std::string_view text) : m_rest(text) {}

  std::optional<int> number(std::size_t mostDigits) {
    std::size_t digits = 0;
    while (digits < m_rest.size() && m_rest[digits] >= '0' && m_rest[digits] <= '9')
      ++digits;
    if (digits == 0 || digits > mostDigits) return std::nullopt;
    int value = 0;
    std::from_chars(m_rest.data(), m_rest.data() + digits, value);
    m_digits = digits;
    m_rest.remove_prefix(digits);
    return value;
  }
  bool mark(char c) {
    if (m_rest.empty() || m_rest.front() != c) return false;
    m_rest.remove_prefix(1);
    return true;
  }
  char oneOf(std::string_view marks) {
    if (m_rest.empty() || marks.find(m_rest.front()) == std::string_view::npos) return '\0';
    const char found = m_rest.front();
    m_rest.remove_prefix(1);
    return found;
  }
  void skipBlanks() { m_rest = trimmed(m_rest); }
  std::size_t digits() const { return m_digits; }
  std::string_view rest() const { return m_rest; }

private:
  std::string_view m_rest;
  std::size_t m_digits = 0;
};

std::chrono::year_month_day dayOf(const CivilTime& time) {
  return {std::chrono::year(time.year), std::chrono::month(static_cast<unsigned>(time.month)),
          std::chrono::day(static_cast<unsigned>(time.day))};
}

bool isDay(const CivilTime& time) {
  constexpr int firstYear = 1970, lastYear = 2200;
  return time.year >= firstYear && time.year <= lastYear && dayOf(time).ok();
}

bool takeDay(Taker& taker, DateOrder order, CivilTime& out) {
  constexpr int century = 2000, twoDigits = 2;
  const auto first = taker.number(4);
  if (!first) return false;
  const bool yearFirst = taker.digits() == 4;
  const char mark = taker.oneOf("-./");
  if (mark == '\0') return false;
  const auto second = taker.number(2);
  if (!second || !taker.mark(mark)) return false;
  const auto third = taker.number(yearFirst ? 2 : 4);
  if (!third) return false;
  if (yearFirst) {
    out.year = *first, out.month = *second, out.day = *third;
  } else {
    const bool monthFirst = mark == '/' && order == DateOrder::MonthFirst;
    out.day = monthFirst ? *second : *first;
    out.month = monthFirst ? *first : *second;
    out.year = taker.digits() <= twoDigits ? century + *third : *third;
  }
  return isDay(out);
}

/// "7:15", "07:15:30.25", "7:15 PM"
bool takeTimeOfDay(Taker& taker, CivilTime& out) {
  const auto hour = taker.number(2);
  if (!hour || !taker.mark(':')) return false;
  const auto minute = taker.number(2);
  if (!minute) return false;
  int second = 0;
  if (taker.mark(':')) {
    const auto found = taker.number(2);
    if (!found) return false;
    second = *found;
    constexpr std::size_t nanoseconds = 9;
    if (taker.oneOf(".,") != '\0' && !taker.number(nanoseconds)) return false;
  }
  out.hour = *hour, out.minute = *minute, out.second = second;
  taker.skipBlanks();
  constexpr int noon = 12;
  if (const char half = taker.oneOf("aApP"); half != '\0') {
    if (taker.oneOf("mM") == '\0' || out.hour < 1 || out.hour > noon) return false;
    out.hour = out.hour % noon + (half == 'p' || half == 'P' ? noon : 0);
  }
  return out.hour < 24 && out.minute < 60 && out.second <= 60;
}

/// Seconds by which the clock on the wall is ahead of UTC, as said behind a time: "Z", "+01:00", "-0530".
std::optional<int> takeZone(Taker& taker) {
  if (taker.oneOf("zZ") != '\0') return 0;
  const char sign = taker.oneOf("+-");
  if (sign == '\0') return std::nullopt;
  const auto hours = taker.number(4);
  if (!hours) return std::nullopt;
  int minutes = *hours * 60;
  if (taker.digits() > 2)
    minutes = *hours / 100 * 60 + *hours % 100;
  else if (taker.mark(':'))
    minutes += taker.number(2).value_or(0);
  constexpr int mostMinutes = 15 * 60;
  if (minutes > mostMinutes) return std::nullopt; // its digits are gone: what is left is no time
  return (sign == '-' ? -minutes : minutes) * 60;
}

std::int64_t utcSeconds(const CivilTime& time) {
  const auto days = std::chrono::sys_days(dayOf(time)).time_since_epoch().count();
  return static_cast<std::int64_t>(days) * 86400 + time.hour * 3600 + time.minute * 60 + time.second;
}

/// Seconds since 1970 of this century, or milliseconds: such a number and no other.
std::optional<std::int64_t> counted(std::string_view text) {
  constexpr std::size_t inSeconds = 10, inMilliseconds = 13;
  const auto whole = text.substr(0, text.find('.'));
  if (whole.size() != inSeconds && whole.size() != inMilliseconds) return std::nullopt;
  std::int64_t value = 0;
  const auto [end, error] = std::from_chars(whole.data(), whole.data() + whole.size(), value);
  if (error != std::errc() || end != whole.data() + whole.size() || value <= 0) return std::nullopt;
  return whole.size() == inSeconds ? value : value / 1000;
}

} // namespace

LoggedTime parseLoggedTime(std::string_view text, DateOrder order, bool mayCount) {
  text = trimmed(text);
  if (mayCount)
    if (const auto seconds = counted(text)) return *seconds;
  Taker taker(text);
  CivilTime out;
  if (!takeDay(taker, order, out)) return {};
  if (taker.oneOf("Tt,") == '\0' && (taker.rest().empty() || taker.rest().front() != ' ')) return {};
  taker.skipBlanks();
  if (!takeTimeOfDay(taker, out)) return {};
  const bool saysZone = !taker.rest().empty();
  const auto zone = takeZone(taker);
  if (!trimmed(taker.rest()).empty() || saysZone != zone.has_value()) return {};
  if (zone) return utcSeconds(out) - *zone;
  return out;
}

std::optional<CivilTime> parseLoggedDay(std::string_view text, DateOrder order) {
  Taker taker(trimmed(text));
  CivilTime out;
  if (!takeDay(taker, order, out) || !taker.rest().empty()) return std::nullopt;
  return out;
}

std::optional<CivilTime> parseTimeOfDay(std::string_view text) {
  Taker taker(trimmed(text));
  CivilTime out;
  if (!takeTimeOfDay(taker, out) || !taker.rest().empty()) return std::nullopt;
  return out;
}

} // namespace butte::devices
