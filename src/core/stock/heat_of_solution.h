#pragma once
#include "product/shelf_product.h"
#include "units/quantity.h"

#include <optional>

namespace butte::core {

/// Heat that this much of a salt takes from the water as it dissolves, in kJ; negative where it warms. At
/// infinite dilution, so for a strong stock the most that it can be. Nothing where data/heats_of_solution.csv
/// has no row for the formula.
std::optional<double> heatTakenKilojoules(const ShelfProduct& product, Mass mass);

/// Heat that a liquid acid gives off from its bottle's strength down to `waterMolPerMol` of water for each
/// mole of acid, in kJ. Nothing where the data have no row for it.
std::optional<double> heatOfDilutionKilojoules(const ShelfProduct& acid, Mass mass, double waterMolPerMol);

/// Moles of the product's formula; 0 where it has none.
double molesOf(const ShelfProduct& product, Mass mass);

} // namespace butte::core
