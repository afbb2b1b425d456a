#pragma once
#include <string>
#include <string_view>

namespace butte::reading {

/// Without the blanks, tabs and line ends around it, nor a word processor's hard blanks (U+00A0).
inline std::string trimmed(std::string_view text) {
  const auto blank = [](char c) { return c == ' ' || c == '\t' || c == '\r' || c == '\n'; };
  while (!text.empty() && blank(text.front()))
    text.remove_prefix(1);
  while (!text.empty() && blank(text.back()))
    text.remove_suffix(1);
  while (text.starts_with("\xC2\xA0"))
    text.remove_prefix(2);
  while (text.ends_with("\xC2\xA0"))
    text.remove_suffix(2);
  return std::string(text);
}

} // namespace butte::reading
