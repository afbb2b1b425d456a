#pragma once
#include "chem/formula.h"
#include "solution/equilibrium_data.h"
#include "units/quantity.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// A salt as a solid that may crystallise out of a stock: a fertilizer, or what fertilizers form together.
struct SaltSolid {
  std::string name;        ///< the catalogue's short name, or a code of data/crystals.csv
  ChemicalFormula formula; ///< the most hydrated form that is known
  Stoichiometry dissolved;
  /// Of data/crystals.csv; else the constant follows from the measured solubility.
  std::optional<ReactionConstant> constant;
};

/// The neutral inorganic salts of data/solubility.csv, one of each substance, and the crystals of
/// data/crystals.csv. Molybdates (which change in solution), acids, bases, organic matter and chelates are
/// not among them: each of those is held against its own solubility only.
const std::vector<SaltSolid>& saltSolids();

/// The salt of the same substance, hydrate water aside.
std::optional<std::size_t> saltSolidOf(const ChemicalFormula& formula);

/// ln of the solubility product of a salt (index into saltSolids()) at this temperature, over the activities
/// of equilibrate(): of a measured solubility, the ion product of the saturated solution of the salt alone.
/// Nothing where the table ends.
std::optional<double> lnSaltSolubility(std::size_t salt, Temperature temperature);

} // namespace butte::core
