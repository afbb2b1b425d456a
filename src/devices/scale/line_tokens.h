#pragma once
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::devices {

/// A piece of a scale's line.
struct LineToken {
  enum class Kind { Number, Word, Sign, Question, Colon };
  Kind kind{};
  std::string text;       ///< as it stands; a number without the blanks behind its sign
  double value = 0;       ///< of a number
  bool whole = false;     ///< a number without a fraction
  bool signedOne = false; ///< a number with its sign
  bool exponent = false;  ///< "9.99E+19": what displays send beside an overload
};

/// The pieces between blanks, commas, semicolons and equals signs. Nothing where the line holds a character
/// that has no place in it, or a number whose comma may be a point or part thousands.
std::optional<std::vector<LineToken>> lineTokens(std::string_view line);

inline bool isBlank(char c) {
  return c == ' ' || c == '\t';
}

/// Without the blanks and control characters around it.
std::string_view trimmedLine(std::string_view line);

/// "1234.5", "12,34" and "1,234.5" as they are meant; nothing for "1,234" and what is no number. Unsigned.
std::optional<double> clearNumber(std::string_view digits);

/// Digits behind the point or comma of a number that clearNumber() took.
int decimalsOf(std::string_view number);

} // namespace butte::devices
