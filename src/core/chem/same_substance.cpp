#include "chem/same_substance.h"

#include "units/constants.h"

#include <cmath>

namespace butte::core {
namespace {

bool sameAtoms(const ChemicalFormula& a, const ChemicalFormula& b, bool ignoreHydrateWater) {
  const auto mass = [&](const ChemicalFormula& f) {
    return f.molarMassGPerMol - (ignoreHydrateWater ? f.hydrateWaterCount * constant::waterGramsPerMol : 0);
  };
  if (std::abs(mass(a) - mass(b)) > 1e-6) return false; // spares most comparisons
  const auto count = [&](const ChemicalFormula& f, const std::pair<const std::string, double>& atom) {
    if (!ignoreHydrateWater) return atom.second;
    const double perWater = atom.first == "H" ? 2 : atom.first == "O" ? 1 : 0;
    return atom.second - perWater * f.hydrateWaterCount;
  };
  // Both lists stand in the order of the symbols: side by side, what one lacks counts as none of it.
  auto x = a.atoms.begin(), y = b.atoms.begin();
  while (x != a.atoms.end() || y != b.atoms.end()) {
    const int order = x == a.atoms.end() ? 1 : y == b.atoms.end() ? -1 : x->first.compare(y->first);
    const double left = order <= 0 ? count(a, *x++) : 0, right = order >= 0 ? count(b, *y++) : 0;
    if (std::abs(left - right) >= 1e-9) return false;
  }
  return true;
}

} // namespace

bool sameSubstance(const ChemicalFormula& a, const ChemicalFormula& b) {
  return sameAtoms(a, b, true);
}

bool sameFormula(const ChemicalFormula& a, const ChemicalFormula& b) {
  return sameAtoms(a, b, false);
}

} // namespace butte::core
