#pragma once
#include "record.h"

#include <string>
#include <vector>

namespace butte::book {

/// What changed between two states of a thing, in a grower's words: first what a hand changed,
/// then what followed:
/// "potassium sulfate 22.3 to 22.7 kg: K +4 mg/L". Empty when nothing that matters did.
std::vector<std::string> changesBetween(Kind kind, const Json& before, const Json& after);

/// The same in one line, for a trail: at most a few, then "and 3 more".
std::string changeWords(Kind kind, const Json& before, const Json& after);

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
