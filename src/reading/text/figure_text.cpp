#include "text/figure_text.h"

#include "base/decimal.h"

#include <algorithm>
#include <vector>

namespace butte::reading {
namespace {

struct Groups {
  std::vector<std::string> digits; ///< between the marks
  std::string marks;
  std::string exponent;
};

bool isMark(char c) {
  return c == '.' || c == ',' || c == '\'' || c == ' ';
}

std::optional<Groups> groupsOf(std::string_view text) {
  Groups out{{""}, {}, {}};
  for (std::size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (c >= '0' && c <= '9') {
      out.digits.back() += c;
    } else if (isMark(c)) {
      out.marks += c;
      out.digits.emplace_back();
    } else if ((c == 'e' || c == 'E') && i > 0) {
      out.exponent = text.substr(i);
      break;
    } else {
      return std::nullopt;
    }
  }
  if (std::any_of(out.digits.begin() + 1, out.digits.end(), [](const auto& d) { return d.empty(); }))
    return std::nullopt;
  return out;
}

/// Thousands stand in threes behind one to three leading digits that are no bare zero.
bool isGrouped(const Groups& groups, std::size_t count) {
  const auto& first = groups.digits.front();
  if (first.empty() || first.size() > 3 || first.front() == '0') return false;
  for (std::size_t i = 1; i < count; ++i) {
    if (groups.digits[i].size() != 3) return false;
  }
  return std::all_of(groups.marks.begin(), groups.marks.begin() + static_cast<std::ptrdiff_t>(count) - 1,
                     [&](char c) { return c == groups.marks.front(); });
}

std::optional<double> valueOf(const Groups& groups, bool lastIsDecimal) {
  std::string text;
  for (std::size_t i = 0; i < groups.digits.size(); ++i) {
    if (i > 0 && i + 1 == groups.digits.size() && lastIsDecimal) text += '.';
    text += groups.digits[i];
  }
  return core::parseDecimal(text + groups.exponent);
}

bool couldBeThousands(const Groups& groups) {
  return groups.marks.size() == 1 && isGrouped(groups, groups.digits.size()) && groups.exponent.empty();
}

} // namespace

std::optional<NumberRead> numberIn(std::string_view digits, DecimalMark mark) {
  const auto groups = groupsOf(digits);
  if (!groups) return std::nullopt;
  const auto& marks = groups->marks;
  const auto plainly = [&](bool lastIsDecimal) -> std::optional<NumberRead> {
    const auto value = valueOf(*groups, lastIsDecimal);
    return value ? std::optional(NumberRead{*value, {}}) : std::nullopt;
  };
  if (marks.empty()) return plainly(false);
  const char last = marks.back();
  const bool mayBeDecimal = last == '.' || last == ',';
  const auto count = groups->digits.size();
  if (marks.size() == 1) {
    if (!couldBeThousands(*groups)) return mayBeDecimal ? plainly(true) : std::nullopt;
    if (!mayBeDecimal) return plainly(false);
    const auto thousands = valueOf(*groups, false), decimal = valueOf(*groups, true);
    if (last == '.' && mark != DecimalMark::Comma) return NumberRead{*decimal, {}};
    if (last == ',' && mark == DecimalMark::Comma) return NumberRead{*decimal, {}};
    if (mark != DecimalMark::Unknown) return NumberRead{*thousands, {}};
    return NumberRead{*thousands, *decimal};
  }
  // Several marks: thousands throughout, or thousands and one decimal mark of another kind at the end.
  if (std::count(marks.begin(), marks.end(), last) == static_cast<std::ptrdiff_t>(marks.size()))
    return isGrouped(*groups, count) ? plainly(false) : std::nullopt;
  return mayBeDecimal && isGrouped(*groups, count - 1) ? plainly(true) : std::nullopt;
}

DecimalMark markShownBy(std::string_view digits) {
  const auto groups = groupsOf(digits);
  if (!groups || groups->marks.empty() || couldBeThousands(*groups)) return DecimalMark::Unknown;
  const char last = groups->marks.back();
  const auto& marks = groups->marks;
  const bool same = std::all_of(marks.begin(), marks.end(), [&](char c) { return c == last; });
  if (same && marks.size() > 1) return DecimalMark::Unknown;
  return last == '.' ? DecimalMark::Point : last == ',' ? DecimalMark::Comma : DecimalMark::Unknown;
}

} // namespace butte::reading
