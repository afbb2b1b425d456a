#pragma once
#include "chem/formula.h"
#include "chem/nutrient.h"
#include "solution/solutes.h"

namespace butte::core {

/// What an amount of nutrients is when dissolved, in mol per the unit of `grams` (per gram of product: g/g;
/// per litre: g/L). Metals count as free ions; urea is uncharged and left out. The alkalinity is for the
/// caller.
Solutes solutesOfNutrients(const NutrientAmounts& grams);

/// A product of this formula in solution, per gram of product: carbonate, citrate, acetate and chelates are
/// told from the formula. `alkalinityMeqPerGram` as Composition has it; `formulaMolPerGram` is purity over
/// molar mass.
Solutes solutesOfProduct(const NutrientAmounts& massFraction, double alkalinityMeqPerGram,
                         const ChemicalFormula& formula, double formulaMolPerGram);

/// The same for what is known by its label only: iron counts as a chelate with one charge, since blends carry
/// it so (common practice), and the label's ions as they stand; what would balance them is not on a label.
Solutes solutesOfLabel(const NutrientAmounts& massFraction);

} // namespace butte::core
