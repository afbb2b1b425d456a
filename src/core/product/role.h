#pragma once
#include "chem/formula.h"
#include "product/product.h"

#include <optional>

namespace butte::core {

enum class OrganicAcid { Citric, Acetic };

/// Citric or acetic acid by its atoms, hydrate water aside; nothing for anything else.
std::optional<OrganicAcid> organicAcidOf(const ChemicalFormula& formula);

/// Equivalents of alkalinity per mole: base positive, acid negative, with phosphate counted as H2PO4 and
/// sulfate as SO4, carbonate and hydroxide as alkalinity. From the charges of the strong ions: 0 for a
/// neutral salt.
double alkalinityEquivalentsPerMole(const ChemicalFormula& formula);

/// Acid, base, chelate, silicate or plain salt, judged from the formula.
ProductRole roleOf(const ChemicalFormula& formula);

/// The stock side by what may not meet: calcium apart from sulfate and phosphate, iron chelate on the calcium
/// side, acids, bases, silicate and salts that hold both apart from the two.
StockSide stockSideOf(const Composition& composition);

} // namespace butte::core
