#pragma once
#include "chem/formula.h"
#include "units/quantity.h"

#include <optional>

namespace butte::core {

/// How much of a product's water-free substance dissolves in a kilogram of water, by itself, in grams.
/// All hydrate water counts as water. Nothing where the table has no row, or ends: that is not known.
///
/// Source of the rows: data/solubility.csv, each with its own source and confidence; between the rows the
/// logarithm is straight over the reciprocal of the temperature; a single figure holds near its temperature.
/// A product is found by its formula: the same formula first, then any hydrate of the same substance (the
/// smaller figure where two tables differ).
std::optional<double> anhydrousGramsPerKgWater(const ChemicalFormula& formula, Temperature temperature);

inline constexpr double reachOfOneFigureKelvin = 5;

} // namespace butte::core
