#pragma once
#include "chem/formula.h"
#include "solution/equilibrium_data.h"
#include "units/quantity.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// A fertilizer salt as a solid that may crystallise out of a stock.
struct SaltSolid {
  std::string catalogueId;
  std::string name;
  ChemicalFormula formula; ///< the most hydrated form that the catalogue has
  Stoichiometry dissolved;
};

/// The neutral inorganic salts of data/solubility.csv, one of each substance. Molybdates (which change in
/// solution), acids, bases, organic matter and chelates are not among them: each of those is held against its
/// own solubility only.
const std::vector<SaltSolid>& saltSolids();

/// The salt of the same substance, hydrate water aside.
std::optional<std::size_t> saltSolidOf(const ChemicalFormula& formula);

/// ln of the conditional solubility product of each salt at this temperature, parallel to saltSolids(): the
/// ion product that the activity model gives for the measured saturated solution of the salt alone. Whatever
/// the model gets wrong at that strength cancels in a tank whose ions are mostly that salt's. Nothing where
/// the table ends.
const std::vector<std::optional<double>>& conditionalSolubility(Temperature temperature);

} // namespace butte::core
