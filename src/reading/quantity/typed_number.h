#pragma once
#include "text/atoms.h"

#include <optional>
#include <string>

namespace butte::reading {

/// A number at the head of what was typed.
struct TypedNumber {
  std::size_t length = 0; ///< atoms
  double value = 0;
  std::string digits;              ///< with a decimal point; empty for a fraction
  std::optional<double> otherwise; ///< "1,250" is 1250 or 1.25
};

/// "12.5", "12,5", "1 250", "1/4", "1 1/2", "2-1/4"; nothing where no number begins there or its marks make
/// none.
std::optional<TypedNumber> typedNumberAt(Atoms atoms, std::size_t at);

/// The text with "½" and its like as " 1/2".
std::string withPlainFractions(std::string_view text);

} // namespace butte::reading
