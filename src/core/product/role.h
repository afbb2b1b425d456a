#pragma once
#include "chem/formula.h"
#include "product/product.h"

#include <optional>

namespace butte::core {

enum class OrganicAcid { Citric, Acetic };

/// An organic acid or its salt: so many acid residues per formula unit.
struct OrganicPart {
  OrganicAcid acid{};
  double perMole = 1;
};
/// Citric or acetic acid, whole or with sodium, potassium, ammonium, calcium or magnesium in the place of its
/// hydrogen, by its atoms, hydrate water aside, however the formula is written; nothing for anything else.
std::optional<OrganicPart> organicPartOf(const ChemicalFormula& formula);

/// Whether the chemistry knows every acid and anion of it: false for formates, lactates, metal-free EDTA,
/// sulfamic acid, nitrites and the like, whose atoms would else be read as hydroxide, carbonate or sulfate.
bool isAcidityKnown(const ChemicalFormula& formula);

/// Phosphorous acid or its salts (H2PO3-, HPO3-2): their phosphorus does not feed a plant as phosphate does.
/// Metaphosphates (no hydrogen) and polyphosphates are not among them.
bool holdsPhosphite(const ChemicalFormula& formula);

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
