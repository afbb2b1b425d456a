#pragma once
#include <fmt/format.h>

#include <functional>
#include <string>
#include <string_view>

/// What the sentences are told in. The texts in this library are English; the program sets once who
/// translates them and what the decimal mark is. butte-cli leaves it as it is.
namespace butte::words {

struct Language {
  std::function<std::string(std::string_view english)> translated; ///< empty: English
  std::string decimalMark = ".";
};
void speak(Language language);

/// A text of this library in the language in force.
std::string text(std::string_view english);

/// Digits with a decimal point as this language writes them.
std::string figureText(std::string_view digits);

std::string filled(std::string_view english, fmt::format_args values);

/// A sentence with its values; a translation whose places do not fit counts as none.
template <class... Values> std::string said(fmt::format_string<Values...> english, Values&&... values) {
  const fmt::string_view pattern = english;
  return filled({pattern.data(), pattern.size()}, fmt::make_format_args(values...));
}

} // namespace butte::words
