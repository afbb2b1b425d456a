#pragma once
#include "base/result.h"

#include <string>
#include <string_view>
#include <vector>

namespace butte::core {

/// One item of a formula as written: an element or a bracketed group, with its subscript.
struct FormulaItem {
  std::string symbol; ///< empty for a group
  std::vector<FormulaItem> group;
  double count = 1;
};

/// One part between hydrate dots, with the number before it.
struct FormulaPart {
  double coefficient = 1;
  std::vector<FormulaItem> items;
};

/// The structure of a formula, not yet counted. Errors as parseFormula().
Result<std::vector<FormulaPart>> scanFormula(std::string_view text);

} // namespace butte::core
