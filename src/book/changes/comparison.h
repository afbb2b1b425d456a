#pragma once
#include "book/record.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::book {

/// One element or product of two formulas, side by side.
struct ComparedRow {
  std::string name;
  std::optional<double> left, right;
};

/// Two formulas side by side: what each weighs and what each gives. Figures per batch of each formula's own
/// volume.
struct FormulaComparison {
  std::vector<ComparedRow> products;     ///< grams in 1000 L of feed
  std::vector<ComparedRow> elements;     ///< mg/L
  std::optional<double> leftEc, rightEc; ///< mS/cm at 25 degC
};

FormulaComparison compareFormulas(const Json& left, const Json& right);

} // namespace butte::book
