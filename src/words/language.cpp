#include "language.h"

#include "base/decimal.h"

#include <algorithm>
#include <cctype>

namespace butte::words {
namespace {

Language& spoken() {
  static Language language;
  return language;
}

} // namespace

void speak(Language language) {
  spoken() = std::move(language);
}

std::string text(std::string_view english) {
  return spoken().translated ? spoken().translated(english) : std::string(english);
}

namespace {

/// No hand types more digits than these: what has more came of a sum, and is said in fewer.
constexpr auto mostTypedDigits = 9;

std::string withoutFalseDigits(std::string_view digits) {
  const auto count =
      std::count_if(digits.begin(), digits.end(), [](unsigned char c) { return std::isdigit(c); });
  const auto value = count > mostTypedDigits ? core::parseDecimal(digits) : std::nullopt;
  return value ? fmt::format("{:.6g}", *value) : std::string(digits);
}

} // namespace

std::string figureText(std::string_view digits) {
  auto out = withoutFalseDigits(digits);
  if (const auto point = out.find('.'); point != std::string::npos && spoken().decimalMark != ".")
    out.replace(point, 1, spoken().decimalMark);
  return out;
}

std::string filled(std::string_view english, fmt::format_args values) {
  try {
    return fmt::vformat(text(english), values);
  } catch (const fmt::format_error&) {
    return fmt::vformat(fmt::string_view(english.data(), english.size()), values);
  }
}

} // namespace butte::words
