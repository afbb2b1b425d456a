#include "table/dates.h"

#include "base/decimal.h"
#include "text/atoms.h"
#include "words/particles.h"
#include "words/vocabulary.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <chrono>
#include <cmath>
#include <fmt/format.h>

namespace butte::reading {
namespace {

constexpr int secondsOfDay = 86400;

std::optional<int> wholeNumber(std::string_view digits) {
  int value = 0;
  const auto* end = digits.data() + digits.size();
  const auto [at, error] = std::from_chars(digits.data(), end, value);
  return error == std::errc() && at == end ? std::optional(value) : std::nullopt;
}

bool isDateDigit(char c) {
  return c >= '0' && c <= '9';
}

/// Numbers, words and signs of a date, blanks left out.
struct Piece {
  enum class Kind { Number, Word, Sign } kind;
  std::string_view text;
};

std::vector<Piece> piecesOf(std::string_view text) {
  std::vector<Piece> out;
  const auto isLetter = [](char c) { return static_cast<unsigned char>(c) >= 0x80 || std::isalpha(c); };
  for (std::size_t i = 0; i < text.size();) {
    auto end = i + 1;
    if (isDateDigit(text[i])) {
      while (end < text.size() && isDateDigit(text[end]))
        ++end;
      out.push_back({Piece::Kind::Number, text.substr(i, end - i)});
    } else if (isLetter(text[i])) {
      while (end < text.size() && isLetter(text[end]))
        ++end;
      out.push_back({Piece::Kind::Word, text.substr(i, end - i)});
    } else if (text[i] != ' ' && text[i] != '\t') {
      out.push_back({Piece::Kind::Sign, text.substr(i, 1)});
    }
    i = end;
  }
  return out;
}

std::optional<int> monthNamed(std::string_view word) {
  const auto atoms = atomsOf(word);
  const auto found = atoms.empty() ? std::nullopt : wordAt(WordKind::Month, atoms, 0, atoms.size());
  return found && found->length == atoms.size() ? wholeNumber(found->means) : std::nullopt;
}

/// Years of two digits are of this century: nobody keeps feeding records of the last one.
int fullYear(int year, std::size_t digits) {
  return digits <= 2 ? 2000 + year : year;
}

bool isDay(int year, int month, int day) {
  using namespace std::chrono;
  return year >= 1970 && year < 2200 &&
         year_month_day(std::chrono::year(year), std::chrono::month(static_cast<unsigned>(month)),
                        std::chrono::day(static_cast<unsigned>(day)))
             .ok();
}

DateRead dateOfDays(std::chrono::sys_days days) {
  const std::chrono::year_month_day ymd(days);
  return {int(ymd.year()), int(unsigned(ymd.month())), int(unsigned(ymd.day())), {}, {}, false};
}

/// A clock that stands from piece `at` on: "7:15", "07:15:30.2", "7:15 PM", "19h15", "7 am".
class ClockReader {
public:
  ClockReader(const std::vector<Piece>& pieces, std::size_t at) : m_pieces(pieces), m_at(at) {}

  bool read(DateRead& out) {
    if (sign(",") || says("begins")) ++m_at;
    const auto hour = number(23);
    if (!hour) return false;
    int seconds = *hour * 3600;
    const bool parted = sign(":") || sign(".") || says("hour");
    if (parted) {
      ++m_at;
      const auto minute = number(59);
      if (!minute && m_at < m_pieces.size()) return false; // "19h" alone is fine
      seconds += minute.value_or(0) * 60;
      if (minute && (sign(":") || sign("."))) {
        ++m_at;
        const auto second = number(59);
        if (!second) return false;
        seconds += *second;
        if (sign(".") || sign(",")) m_at += 2; // parts of a second
      }
    }
    const bool half = halfDay(seconds);
    if (!parted && !half) return false;
    if (!zone(out)) return false;
    out.secondOfDay = seconds;
    return m_at >= m_pieces.size();
  }

private:
  bool sign(std::string_view s) const {
    return m_at < m_pieces.size() && m_pieces[m_at].kind == Piece::Kind::Sign && m_pieces[m_at].text == s;
  }
  /// A word that means that of a clock (data/reading_particles.csv).
  bool says(std::string_view what) const {
    return m_at < m_pieces.size() && m_pieces[m_at].kind == Piece::Kind::Word &&
           particleMeans(Particle::Clock, folded(m_pieces[m_at].text)) == what;
  }
  std::optional<int> number(int most) {
    if (m_at >= m_pieces.size() || m_pieces[m_at].kind != Piece::Kind::Number) return std::nullopt;
    const auto value = wholeNumber(m_pieces[m_at].text);
    if (!value || *value > most) return std::nullopt;
    ++m_at;
    return value;
  }
  /// "AM", "p.m.", "Uhr"
  bool halfDay(int& seconds) {
    const bool am = says("before noon"), pm = says("after noon");
    if (says("hour")) return ++m_at, true;
    if (!am && !pm) return false;
    const bool dotted = m_pieces[m_at].text.size() == 1;
    ++m_at;
    if (dotted) {
      while (sign(".") || says("half"))
        ++m_at;
    }
    const int hour = seconds / 3600;
    if (hour == 0 || hour > 12) return false;
    if (am && hour == 12) seconds -= secondsOfDay / 2;
    if (pm && hour != 12) seconds += secondsOfDay / 2;
    return true;
  }
  bool zone(DateRead& out) {
    if (says("universal")) {
      out.offsetMinutes = 0;
      ++m_at;
    }
    if (!sign("+") && !sign("-")) return true;
    const int way = sign("+") ? 1 : -1;
    ++m_at;
    if (m_at >= m_pieces.size() || m_pieces[m_at].kind != Piece::Kind::Number) return false;
    const auto digits = m_pieces[m_at++].text;
    const auto value = wholeNumber(digits).value_or(9999);
    int minutes = digits.size() == 4 ? value / 100 * 60 + value % 100 : value * 60;
    if (sign(":")) {
      ++m_at;
      minutes += number(59).value_or(0);
    }
    if (minutes > 14 * 60) return false;
    out.offsetMinutes = way * minutes;
    return true;
  }
  const std::vector<Piece>& m_pieces;
  std::size_t m_at;
};

/// Days since the end of 1899, as spreadsheets count them, or seconds since 1970.
std::optional<DateRead> dateOfCount(std::string_view text) {
  const auto value = core::parseDecimal(text);
  if (!value) return std::nullopt;
  constexpr double firstDay = 36526, lastDay = 73050; // 2000 to 2099
  constexpr double firstSecond = 946684800, lastSecond = 4102444800;
  using namespace std::chrono;
  double seconds = 0;
  if (*value >= firstDay && *value <= lastDay)
    seconds = (*value - 25569) * secondsOfDay;
  else if (*value >= firstSecond && *value <= lastSecond)
    seconds = *value;
  else
    return std::nullopt;
  const auto whole = static_cast<std::int64_t>(std::llround(seconds));
  auto out = dateOfDays(sys_days(days(whole / secondsOfDay)));
  if (whole % secondsOfDay != 0 || *value >= firstSecond)
    out.secondOfDay = static_cast<int>(whole % secondsOfDay);
  return out;
}

/// "20260304", "20260304T0715" has no signs to part it.
std::optional<DateRead> dateInOneNumber(std::string_view digits) {
  if (digits.size() != 8) return std::nullopt;
  DateRead out;
  out.year = wholeNumber(digits.substr(0, 4)).value_or(0);
  out.month = wholeNumber(digits.substr(4, 2)).value_or(0);
  out.day = wholeNumber(digits.substr(6, 2)).value_or(0);
  return isDay(out.year, out.month, out.day) ? std::optional(out) : std::nullopt;
}

bool isSeparator(const Piece& piece) {
  static constexpr std::array<std::string_view, 4> signs{"-", "/", ".", ","};
  return piece.kind == Piece::Kind::Sign && std::find(signs.begin(), signs.end(), piece.text) != signs.end();
}

/// The three parts of a date and where they end; a weekday's name before it and "of" between do not matter.
struct DateParts {
  std::vector<Piece> parts;
  std::string_view sign;
  std::size_t end = 0;
};
std::optional<DateParts> partsOf(const std::vector<Piece>& pieces) {
  DateParts out;
  std::size_t i = 0;
  while (i < pieces.size() && out.parts.size() < 3) {
    const auto& piece = pieces[i];
    const bool month = piece.kind == Piece::Kind::Word && monthNamed(piece.text).has_value();
    if (piece.kind == Piece::Kind::Number || month)
      out.parts.push_back(piece);
    else if (isSeparator(piece) && out.sign.empty() && !out.parts.empty())
      out.sign = piece.text;
    else if (piece.kind == Piece::Kind::Sign && !isSeparator(piece))
      return std::nullopt;
    ++i;
  }
  out.end = i;
  return out.parts.size() == 3 ? std::optional(out) : std::nullopt;
}

std::optional<DateRead> made(int year, int month, int day) {
  if (!isDay(year, month, day)) return std::nullopt;
  return DateRead{year, month, day, {}, {}, false};
}

std::optional<DateRead> dateOfParts(const DateParts& found, DateOrder order) {
  const auto& p = found.parts;
  std::array<int, 3> n{};
  std::optional<std::size_t> named;
  for (std::size_t i = 0; i < 3; ++i) {
    const bool word = p[i].kind == Piece::Kind::Word;
    if (word && named) return std::nullopt;
    if (word) named = i;
    const auto value = word ? monthNamed(p[i].text) : wholeNumber(p[i].text);
    if (!value) return std::nullopt;
    n[i] = *value;
  }
  if (p[0].text.size() == 4 && !named) return made(n[0], n[1], n[2]);
  const int year = fullYear(n[2], p[2].text.size());
  if (named == 0) return made(year, n[0], n[1]);
  if (named == 1 && p[0].text.size() == 4) return made(n[0], n[1], n[2]);
  if (named == 1) return made(year, n[1], n[0]);
  if (named) return std::nullopt;
  const auto dayFirst = made(year, n[1], n[0]), monthFirst = made(year, n[0], n[1]);
  // A date with dots has its day first wherever dates have dots.
  if (found.sign == ".") return dayFirst;
  if (!dayFirst || !monthFirst || n[0] == n[1]) {
    const bool contradicts =
        (order == DateOrder::DayFirst && !dayFirst) || (order == DateOrder::MonthFirst && !monthFirst);
    return contradicts ? std::nullopt : dayFirst ? dayFirst : monthFirst;
  }
  auto out = order == DateOrder::MonthFirst ? monthFirst : dayFirst;
  out->orderMatters = true;
  return out;
}

} // namespace

std::string DateRead::iso() const {
  auto out = fmt::format("{:04}-{:02}-{:02}", year, month, day);
  if (!secondOfDay) return out;
  out += fmt::format("T{:02}:{:02}:{:02}", *secondOfDay / 3600, *secondOfDay / 60 % 60, *secondOfDay % 60);
  if (!offsetMinutes) return out;
  if (*offsetMinutes == 0) return out + "Z";
  const int size = std::abs(*offsetMinutes);
  return out + fmt::format("{}{:02}:{:02}", *offsetMinutes < 0 ? '-' : '+', size / 60, size % 60);
}

std::optional<DateRead> dateIn(std::string_view text, DateOrder order) {
  constexpr std::size_t mostLetters = 60;
  if (text.empty() || text.size() > mostLetters) return std::nullopt;
  if (auto counted = dateOfCount(text)) return counted;
  const auto pieces = piecesOf(text);
  if (pieces.empty()) return std::nullopt;
  std::optional<DateRead> out;
  std::size_t end = 1;
  if (pieces[0].kind == Piece::Kind::Number) out = dateInOneNumber(pieces[0].text);
  if (!out) {
    const auto parts = partsOf(pieces);
    if (!parts) return std::nullopt;
    out = dateOfParts(*parts, order);
    end = parts->end;
  }
  if (!out || end >= pieces.size()) return out;
  return ClockReader(pieces, end).read(*out) ? out : std::nullopt;
}

std::optional<int> clockIn(std::string_view text) {
  // A spreadsheet's part of a day has more digits than minutes have: 0.302.
  const auto part = text.size() > 4 && text.starts_with("0.") ? core::parseDecimal(text) : std::nullopt;
  if (part) return static_cast<int>(std::lround(*part * secondsOfDay));
  const auto pieces = piecesOf(text);
  DateRead out;
  if (pieces.empty() || !ClockReader(pieces, 0).read(out)) return std::nullopt;
  return out.secondOfDay;
}

DateOrderFound dateOrderOf(const std::vector<std::string>& cells) {
  DateOrderFound out;
  std::size_t day = 0, month = 0;
  std::array<std::vector<std::string>, 2> days;
  const auto yearFirst = [](const std::string& cell) {
    return cell.size() > 4 && std::all_of(cell.begin(), cell.begin() + 4, isDateDigit) &&
           !isDateDigit(cell[4]);
  };
  for (const auto& cell : cells) {
    if (yearFirst(cell)) continue; // says nothing of the others, and a logger has a hundred thousand of them
    const auto a = dateIn(cell, DateOrder::DayFirst), b = dateIn(cell, DateOrder::MonthFirst);
    day += a && !b;
    month += b && !a;
    if (!a || !b) continue;
    out.matters |= a->orderMatters;
    days[0].push_back(a->iso());
    days[1].push_back(b->iso());
  }
  if (!out.matters) return out;
  if (day > 0 && month == 0) out.order = DateOrder::DayFirst;
  if (month > 0 && day == 0) out.order = DateOrder::MonthFirst;
  const auto stepsBack = [](const std::vector<std::string>& list) {
    std::size_t count = 0;
    for (std::size_t i = 1; i < list.size(); ++i)
      count += list[i] < list[i - 1];
    return std::min(count,
                    list.size() - 1 - std::min(count, list.size() - 1)); // newest first is an order too
  };
  out.likelier = stepsBack(days[1]) < stepsBack(days[0]) ? DateOrder::MonthFirst : DateOrder::DayFirst;
  return out;
}

} // namespace butte::reading
