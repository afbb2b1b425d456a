#include "base/decimal.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

namespace butte::core {

std::string normalisedDecimal(std::string_view text) {
  const auto first = text.find_first_not_of(" \t\n\r");
  if (first == std::string_view::npos) return {};
  const auto last = text.find_last_not_of(" \t\n\r");
  std::string out(text.substr(first, last - first + 1));
  if (out.find('.') == std::string::npos && std::count(out.begin(), out.end(), ',') == 1)
    std::replace(out.begin(), out.end(), ',', '.');
  if (out.size() > 1 && out.front() == '+' && out[1] != '-') out.erase(0, 1);
  return out;
}

bool isFigure(double value) {
  return value == 0 || (std::abs(value) >= leastFigure && std::abs(value) <= mostFigure);
}

std::optional<double> parseDecimal(std::string_view text) {
  const std::string clean = normalisedDecimal(text);
  // from_chars would also read "inf" and "nan".
  if (clean.empty() || clean.find_first_not_of("0123456789.eE+-") != std::string::npos) return std::nullopt;
  double value = 0;
  const auto [end, error] = std::from_chars(clean.data(), clean.data() + clean.size(), value);
  if (error != std::errc{} || end != clean.data() + clean.size() || !std::isfinite(value))
    return std::nullopt;
  return value;
}

std::string decimalText(double value) {
  std::array<char, 40> buffer{};
  const auto [end, error] = std::to_chars(buffer.data(), buffer.data() + buffer.size(), value);
  return error == std::errc{} ? std::string(buffer.data(), end) : std::string("?");
}

} // namespace butte::core
