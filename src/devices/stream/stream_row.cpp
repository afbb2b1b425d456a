#include "stream/stream_row.h"

#include "base/decimal.h"

#include <algorithm>
#include <cctype>

namespace butte::devices {

namespace {
bool isDigit(char c) {
  return c >= '0' && c <= '9';
}

/// The length of the number that a text begins with: sign, digits, one mark, an exponent.
std::size_t numberLength(std::string_view text) {
  std::size_t at = 0;
  if (at < text.size() && (text[at] == '+' || text[at] == '-')) ++at;
  const auto digits = [&] {
    const auto from = at;
    while (at < text.size() && isDigit(text[at]))
      ++at;
    return at - from;
  };
  auto count = digits();
  if (at < text.size() && (text[at] == '.' || text[at] == ',')) {
    ++at;
    count += digits();
  }
  if (count == 0) return 0;
  if (at + 1 < text.size() && (text[at] == 'e' || text[at] == 'E')) {
    const auto before = at++;
    if (text[at] == '+' || text[at] == '-') ++at;
    if (digits() == 0) at = before;
  }
  return at;
}
} // namespace

std::string_view trimmed(std::string_view text) {
  const auto blank = [](char c) { return std::isspace(static_cast<unsigned char>(c)) != 0 || c == '\0'; };
  while (!text.empty() && blank(text.front()))
    text.remove_prefix(1);
  while (!text.empty() && blank(text.back()))
    text.remove_suffix(1);
  return text;
}

std::optional<SaidFigure> saidFigure(std::string_view text) {
  text = trimmed(text);
  const auto length = numberLength(text);
  if (length == 0) return std::nullopt;
  const auto value = core::parseDecimal(text.substr(0, length));
  if (!value) return std::nullopt;
  const auto unit = trimmed(text.substr(length));
  constexpr std::size_t longestUnit = 12;
  if (unit.size() > longestUnit) return std::nullopt;
  const bool namesScale = unit.substr(0, 3) == "ppm"; // ppm500
  const auto foreign = [&](char c) {
    return isDigit(c) ? !namesScale : std::string_view(":.,;=").find(c) != std::string_view::npos;
  };
  if (std::any_of(unit.begin(), unit.end(), foreign)) return std::nullopt;
  return SaidFigure{*value, std::string(unit)};
}

} // namespace butte::devices
