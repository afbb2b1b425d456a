#include "chem/formula.h"

#include "chem/atomic_weights.h"
#include "chem/formula_scanner.h"

#include <cmath>
#include <span>

namespace butte::core {
namespace {

using Items = std::span<const FormulaItem>;

bool isAtom(const FormulaItem& item, std::string_view symbol, double count) {
  return item.symbol == symbol && item.count == count;
}

/// "(NH2)2", or "NH2" written once with its bracket.
bool isAmideGroup(const FormulaItem& item) {
  return item.symbol.empty() && item.count == 2 && item.group.size() == 2 && isAtom(item.group[0], "N", 1) &&
         isAtom(item.group[1], "H", 2);
}

/// "CO(NH2)2" or "(NH2)2CO" starting here.
bool startsUrea(Items items) {
  if (items.size() < 3) return false;
  const auto carbonyl = [](const FormulaItem& c, const FormulaItem& o) {
    return isAtom(c, "C", 1) && isAtom(o, "O", 1);
  };
  return (carbonyl(items[0], items[1]) && isAmideGroup(items[2])) ||
         (isAmideGroup(items[0]) && carbonyl(items[1], items[2]));
}

class Counter {
public:
  explicit Counter(ChemicalFormula& out) : m_out(out) {}

  void addPart(const FormulaPart& part) {
    const Items items(part.items);
    if (isWater(items)) m_out.hydrateWaterCount += part.coefficient;
    if (isBareUrea(items)) {
      m_out.ureaNitrogenCount += 2 * part.coefficient;
      addAtoms(items, part.coefficient, false);
    } else {
      addAtoms(items, part.coefficient, true);
    }
  }

private:
  static bool isWater(Items items) {
    return items.size() == 2 && isAtom(items[0], "H", 2) && isAtom(items[1], "O", 1);
  }

  /// A part that is nothing but C, H4, N2, O in any order, such as "CH4N2O".
  static bool isBareUrea(Items items) {
    double carbon = 0, hydrogen = 0, nitrogen = 0, oxygen = 0;
    for (const auto& item : items) {
      if (item.symbol == "C")
        carbon += item.count;
      else if (item.symbol == "H")
        hydrogen += item.count;
      else if (item.symbol == "N")
        nitrogen += item.count;
      else if (item.symbol == "O")
        oxygen += item.count;
      else
        return false;
    }
    return items.size() == 4 && carbon == 1 && hydrogen == 4 && nitrogen == 2 && oxygen == 1;
  }

  void addAtoms(Items items, double multiplier, bool classify) {
    for (std::size_t i = 0; i < items.size(); ++i) {
      const auto& item = items[i];
      if (classify) classifyBond(items.subspan(i), multiplier);
      if (item.symbol.empty()) {
        // The amide groups of urea are already counted as urea nitrogen.
        addAtoms(item.group, multiplier * item.count, classify);
      } else {
        m_out.atoms[item.symbol] += multiplier * item.count;
      }
    }
  }

  void classifyBond(Items items, double multiplier) {
    if (startsUrea(items)) {
      m_out.ureaNitrogenCount += 2 * multiplier;
    } else if (items.size() >= 2 && isAtom(items[0], "N", 1) && isAtom(items[1], "O", 3)) {
      m_out.nitrateCount += multiplier;
    } else if (items.size() >= 2 && isAtom(items[0], "N", 1) &&
               (isAtom(items[1], "H", 4) || isAtom(items[1], "H", 3))) {
      m_out.ammoniumCount += multiplier;
    } else if (items.size() >= 2 && isAtom(items[0], "C", 1) && isAtom(items[1], "O", 3)) {
      m_out.carbonateCount += multiplier;
    }
  }

  ChemicalFormula& m_out;
};

} // namespace

double ChemicalFormula::count(std::string_view symbol) const {
  const auto it = atoms.find(symbol);
  return it == atoms.end() ? 0 : it->second;
}

Result<ChemicalFormula> parseFormula(std::string_view text) {
  const auto parts = scanFormula(text);
  if (!parts) return parts.problem();
  ChemicalFormula formula;
  formula.text = std::string(text);
  Counter counter(formula);
  for (const auto& part : *parts)
    counter.addPart(part);
  for (const auto& [symbol, atoms] : formula.atoms) {
    formula.molarMassGPerMol += atoms * atomicWeight(symbol).value_or(0);
  }
  if (!std::isfinite(formula.molarMassGPerMol) || formula.molarMassGPerMol > 1e9) {
    return problemAt(ProblemCode::FormulaTooLarge, "formula", {formula.text, "a molar mass above 1e9 g/mol"});
  }
  return formula;
}

NutrientAmounts massFractions(const ChemicalFormula& formula) {
  NutrientAmounts out;
  const double nitrogen = atomicWeight("N").value_or(0) / formula.molarMassGPerMol;
  out.add(Nutrient::NNitrate, formula.nitrateCount * nitrogen);
  out.add(Nutrient::NAmmonium, formula.ammoniumCount * nitrogen);
  out.add(Nutrient::NUrea, formula.ureaNitrogenCount * nitrogen);
  for (const auto nutrient : allNutrients) {
    const auto symbol = elementSymbol(nutrient);
    if (symbol == "N") continue;
    out.add(nutrient, formula.count(symbol) * atomicWeight(symbol).value_or(0) / formula.molarMassGPerMol);
  }
  return out;
}

double hydrateWaterFraction(const ChemicalFormula& formula) {
  const double water = 2 * atomicWeight("H").value_or(0) + atomicWeight("O").value_or(0);
  return formula.hydrateWaterCount * water / formula.molarMassGPerMol;
}

} // namespace butte::core
