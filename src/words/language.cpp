#include "language.h"

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

std::string figureText(std::string_view digits) {
  std::string out(digits);
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
