#pragma once
#include <optional>
#include <string>
#include <string_view>

namespace butte::reading {

/// How a paper writes numbers, as far as it shows it.
enum class DecimalMark { Unknown, Point, Comma };

/// A number as it stands in a text.
struct NumberRead {
  double value = 0;
  std::optional<double> otherwise; ///< "1,250" where nothing says whether the comma parts thousands
};

/// Digits with their marks: "12.5", "12,5", "1,250.5", "1.250,5", "1'250", "1 250", "1.2e-3". One mark that
/// could be either is read as the paper's others are; nothing where the marks make no number ("1,2,3",
/// "1 000 00").
std::optional<NumberRead> numberIn(std::string_view digits, DecimalMark mark);

/// What a number of the paper says of its mark: "0,5" and "1.250,5" are commas, "1,250" says nothing.
DecimalMark markShownBy(std::string_view digits);

} // namespace butte::reading
