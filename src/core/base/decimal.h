#pragma once
#include <optional>
#include <string>
#include <string_view>

namespace butte::core {

/// The figures that anything here may have: 0, or within these either way. What can be weighed, counted or
/// paid for lies far within; beyond, sums of squares would overflow or vanish.
inline constexpr double leastFigure = 1e-15, mostFigure = 1e15;
bool isFigure(double value);

/// Reads a number as a person types it: surrounding blanks, a decimal point or one decimal comma, an
/// exponent. Nothing when the text is not entirely one finite number. Grouping marks
/// ("1,234.5") are refused, since they read differently from country to country.
std::optional<double> parseDecimal(std::string_view text);

/// The same number as the shortest text with a decimal point that reads back to the same double.
std::string decimalText(double value);

/// As typed, but with a decimal point and no blanks; digits are kept ("12,50" -> "12.50").
std::string normalisedDecimal(std::string_view text);

} // namespace butte::core
