#pragma once
#include "chem/formula.h"

namespace butte::core {

/// True when two formulas hold the same atoms, hydrate water aside.
bool sameSubstance(const ChemicalFormula& a, const ChemicalFormula& b);

/// True when two formulas hold the same atoms, hydrate water and all.
bool sameFormula(const ChemicalFormula& a, const ChemicalFormula& b);

} // namespace butte::core
