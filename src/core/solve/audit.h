#pragma once
#include "solve/solve.h"

#include <string>
#include <vector>

namespace butte::core {

/// How a wrong line may have come about.
enum class SheetSlip {
  Unknown,
  LeftOut,       ///< the line is missing or zero
  DecimalPoint,  ///< ten, a hundred or a thousand times off
  DigitsSwapped, ///< two neighbouring digits
  PoundsForKilograms,
  KilogramsForPounds,
  OuncesForGrams, ///< 28.35 times too little, or the other way
  Doubled,
  Halved,
};

/// A line of a recipe sheet that would, alone corrected, mend most of what is off.
struct SuspectLine {
  std::string product;
  Mass stands, fits; ///< `fits`: what the slip makes of it where that is known, else the best fit
  SheetSlip slip = SheetSlip::Unknown;
  double mendedShare = 0;          ///< of the squared misfit, 0 to 1
  std::vector<Nutrient> thrownOff; ///< out of their band now, inside it with the corrected line
};

/// Audits given weights against what they are meant to give: which single line, changed alone, explains the
/// misfit. Empty where everything stands in its band or no single line explains at least two thirds.
std::vector<SuspectLine> suspectLines(const SolveRequest& request, const std::vector<Mass>& grams);

} // namespace butte::core
