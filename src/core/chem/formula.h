#pragma once
#include "base/result.h"
#include "chem/nutrient.h"

#include <map>
#include <string>
#include <string_view>

namespace butte::core {

/// A chemical formula, counted: atoms per formula unit and how its nitrogen and water are bound.
struct ChemicalFormula {
  std::string text;
  std::map<std::string, double, std::less<>> atoms; ///< count per element symbol, hydrate water included
  double molarMassGPerMol = 0;
  double nitrateCount = 0;      ///< nitrogen bound as NO3
  double ammoniumCount = 0;     ///< nitrogen bound as NH4 or NH3
  double ureaNitrogenCount = 0; ///< nitrogen bound as urea, CO(NH2)2
  double hydrateWaterCount = 0; ///< H2O parts ("·4H2O")
  double carbonateCount = 0;    ///< carbon bound as CO3 or HCO3

  double count(std::string_view symbol) const;
};

/// Reads a formula: element symbols with counts, groups in (), [] or {}, and any number of hydrate or adduct
/// parts after "·", "." or "*", each with its own count, whole or decimal ("CaSO4·0.5H2O",
/// "5Ca(NO3)2·NH4NO3·10H2O"). Unicode subscripts are read as digits. Errors: FormulaEmpty, FormulaSyntax
/// (with the position and what was expected there), UnknownElement, FormulaTooLarge.
Result<ChemicalFormula> parseFormula(std::string_view text);

/// Mass of each nutrient in one gram of the pure substance. Nitrogen in other bonds (a chelate's) is left
/// out.
NutrientAmounts massFractions(const ChemicalFormula& formula);

/// Share of the mass that is hydrate water.
double hydrateWaterFraction(const ChemicalFormula& formula);

} // namespace butte::core
