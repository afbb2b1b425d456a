#pragma once
#include "report/analyte.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::reading {

/// What the text above a column says.
struct ColumnHeading {
  std::vector<std::string> words; ///< meanings of Column words, the longest first: "price", "bag"
  std::optional<Analyte> analyte; ///< "NO3-N", "Sulfate"
  std::string labelKey;           ///< as a fertilizer's label means it: "K2O"
  std::string unit;               ///< "mg/L", "mS/cm", "lb", "%", as core::convert() or reports name it
  std::optional<double> per;      ///< "price per 25 kg": 25, with unit kg
  std::string currency;           ///< a sign or code of a currency in it
  bool whole = true;              ///< nothing stands there that says something else
  bool empty() const { return words.empty() && !analyte && labelKey.empty(); }
};

ColumnHeading columnHeadingOf(std::string_view text);

/// A unit alone, as the cell of a row of units has it; empty where it is none.
std::string unitAlone(std::string_view text);

/// "€ 14.50": the sign or code of the currency, and the text without it.
struct MoneyText {
  std::string currency, rest;
};
MoneyText moneyIn(std::string_view text);

} // namespace butte::reading
