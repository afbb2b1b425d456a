#pragma once
#include "chem/formula.h"
#include "units/quantity.h"

#include <optional>

namespace butte::core {

/// How much of a product's water-free substance dissolves in a kilogram of water, by itself, in grams.
/// All hydrate water counts as water. Nothing where the table has no row, or ends: that is not known.
///
/// Source of the rows: data/solubility.csv, each with its own source and confidence; interpolated on the
/// logarithm between tabulated temperatures. A product is found by its formula: the same formula first, then
/// any hydrate of the same substance (the smaller figure where two tables differ).
std::optional<double> anhydrousGramsPerKgWater(const ChemicalFormula& formula, Temperature temperature);

/// True when two formulas hold the same atoms, hydrate water aside.
bool sameSubstance(const ChemicalFormula& a, const ChemicalFormula& b);

} // namespace butte::core
