#pragma once
#include "chem/formula.h"
#include "solution/solutes.h"

#include <optional>
#include <vector>

namespace butte::core {

/// A dissolved substance of data/solution_densities.csv and how much of it there is.
struct VolumePart {
  std::size_t substance = 0; ///< index into the table
  double grams = 0;          ///< water-free; below 0 where ions are counted by difference
};

/// Room that dissolved substances take, by Laliberte 2009 (doi 10.1021/je8008123): the volume of a solution
/// is that of its water and of each solute as if alone at the same mass fraction of water. Within 0.3 % of
/// measured densities where the solute's row reaches; for ions counted by difference about 0.5 %.
///
/// mL per gram of the water-free substance, where `waterFraction` of the whole solution's mass is water.
double apparentMillilitresPerGram(std::size_t substance, double waterFraction, double celsius);

/// The row of this substance, hydrate water aside.
std::optional<std::size_t> densitySubstanceOf(const ChemicalFormula& formula);

/// Dissolved salts without a row of their own, ion by ion: a cation as its chloride, an anion as its
/// potassium salt, less the potassium chloride that is too much. Boron, silicon, molybdate and organic ions
/// are left out: `gramsOfIonsCounted` tells what mass the parts stand for.
std::vector<VolumePart> volumePartsOf(const Solutes& mol);
double gramsOfIonsCounted(const Solutes& mol);

} // namespace butte::core
