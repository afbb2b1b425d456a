#pragma once
#include "text/atoms.h"
#include "text/figure_text.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::reading {

/// One statement of a label's line.
struct LabelTerm {
  std::string key; ///< "K2O"; empty: none was found
  double value = 0;
  std::string unit;  ///< "%", "mg/kg", "g/L", or "" where none stands
  bool part = false; ///< "chelated", "water soluble", "of which"
  bool most = false; ///< "not more than"
  std::string chelate;
};

/// The statements of one line: "12.2% Nitrate Nitrogen", "Iron (Fe) ... 0.3 %", "3% NO3-N, 1% NH4-N".
std::vector<LabelTerm> labelTermsOf(Atoms atoms, DecimalMark mark);

/// "4-18-38 + 0.5 Mg": N, P2O5 and K2O, and what follows; nothing where the line is none.
std::optional<std::vector<LabelTerm>> shorthandOf(Atoms atoms, DecimalMark mark);

/// kg/L of "Density 1.24 kg/L", "SG 1.2", "10.3 lb per gallon"; nothing where the line states none.
std::optional<double> densityOf(Atoms atoms, DecimalMark mark);

} // namespace butte::reading
