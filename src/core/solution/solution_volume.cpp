#include "solution/solution_volume.h"

#include "base/csv.h"
#include "base/embedded.h"
#include "chem/same_substance.h"

#include <algorithm>
#include <cassert>
#include <cmath>

namespace butte::core {
namespace {

struct DensityRow {
  ChemicalFormula formula;
  double c0 = 0, c1 = 0, c2 = 0, c3 = 0, c4 = 0;
};

const std::vector<DensityRow>& densityRows() {
  static const std::vector<DensityRow> rows = [] {
    std::vector<DensityRow> out;
    const CsvTable csv(embedded::solution_densities());
    for (std::size_t row = 0; row < csv.rowCount(); ++row) {
      const auto number = [&](const char* column) { return csv.number(row, column).value_or(0); };
      auto formula = parseFormula(csv.cell(row, "formula"));
      assert(formula && "data/solution_densities.csv has a formula that can't be read");
      out.push_back(
          {std::move(formula).value(), number("c0"), number("c1"), number("c2"), number("c3"), number("c4")});
    }
    return out;
  }();
  return rows;
}

/// An ion, the salt that stands for it, and how many potassium chlorides that salt has too much of.
struct Carrier {
  Component component;
  std::size_t substance;
  double gramsPerMol;
  double chloridesTooMany;
};

Carrier carrier(Component component, const char* formula, double tooMany) {
  const auto parsed = parseFormula(formula);
  const auto substance = densitySubstanceOf(*parsed);
  assert(substance && "data/solution_densities.csv lacks a salt that ions are counted by");
  return {component, *substance, parsed->molarMassGPerMol, tooMany};
}

const std::vector<Carrier>& plainCarriers() {
  static const std::vector<Carrier> found{
      carrier(Component::Na, "NaCl", 1),   carrier(Component::K, "KCl", 1),
      carrier(Component::NH4, "NH4Cl", 1), carrier(Component::Ca, "CaCl2", 2),
      carrier(Component::Mg, "MgCl2", 2),  carrier(Component::Fe, "FeCl2", 2),
      carrier(Component::Mn, "MnCl2", 2),  carrier(Component::Zn, "ZnCl2", 2),
      carrier(Component::Cu, "CuCl2", 2),  carrier(Component::NO3, "KNO3", 0),
      carrier(Component::Cl, "KCl", 0),    carrier(Component::SO4, "K2SO4", 0)};
  return found;
}

/// An acid's ion by how much of its hydrogen it has given off.
struct AcidCarriers {
  Component component;
  Carrier first, second; ///< H2PO4- and HPO4-2, HCO3- and CO3-2
  double alkalinityOfFirst;
};

const std::vector<AcidCarriers>& acidCarriers() {
  static const std::vector<AcidCarriers> found{
      {Component::Phosphate, carrier(Component::Phosphate, "KH2PO4", 0),
       carrier(Component::Phosphate, "K2HPO4", 0), 0},
      {Component::Carbonate, carrier(Component::Carbonate, "KHCO3", 0),
       carrier(Component::Carbonate, "K2CO3", 0), 1}};
  return found;
}

/// Share of the second form: what alkalinity there is beyond the first forms', spread over both acids.
double shareOfSecond(const Solutes& mol) {
  double first = 0, acids = 0;
  for (const auto& acid : acidCarriers()) {
    first += acid.alkalinityOfFirst * mol.of(acid.component);
    acids += mol.of(acid.component);
  }
  return acids > 0 ? std::clamp((mol.alkalinityEq - first) / acids, 0.0, 1.0) : 0;
}

/// Calls use(carrier, mol) for each ion that a salt of the table stands for.
template <typename Use> void eachCarrier(const Solutes& mol, const Use& use) {
  for (const auto& c : plainCarriers()) {
    if (mol.of(c.component) > 0) use(c, mol.of(c.component));
  }
  const double second = shareOfSecond(mol);
  for (const auto& acid : acidCarriers()) {
    const double amount = mol.of(acid.component);
    if (amount <= 0) continue;
    use(acid.first, amount * (1 - second));
    use(acid.second, amount * second);
  }
}

} // namespace

double apparentMillilitresPerGram(std::size_t substance, double waterFraction, double celsius) {
  const auto& row = densityRows()[substance];
  const double solutes = 1 - waterFraction, warm = celsius + row.c4;
  // As the reciprocal of Laliberte's apparent density, which passes through infinity where a salt draws the
  // water together as much as it takes up room.
  return 1000 * (solutes + row.c2 + row.c3 * celsius) /
         ((row.c0 * solutes + row.c1) * std::exp(1e-6 * warm * warm));
}

std::optional<std::size_t> densitySubstanceOf(const ChemicalFormula& formula) {
  const auto& rows = densityRows();
  const auto it = std::find_if(rows.begin(), rows.end(),
                               [&](const DensityRow& row) { return sameSubstance(row.formula, formula); });
  if (it == rows.end()) return std::nullopt;
  return static_cast<std::size_t>(it - rows.begin());
}

std::vector<VolumePart> volumePartsOf(const Solutes& mol) {
  std::vector<VolumePart> out;
  double tooMany = 0;
  eachCarrier(mol, [&](const Carrier& c, double amount) {
    out.push_back({c.substance, amount * c.gramsPerMol});
    tooMany += c.chloridesTooMany * amount;
  });
  static const auto chloride = carrier(Component::K, "KCl", 1);
  out.push_back({chloride.substance, -tooMany * chloride.gramsPerMol});
  return out;
}

double gramsOfIonsCounted(const Solutes& mol) {
  static const double chlorideGrams = parseFormula("KCl")->molarMassGPerMol;
  double grams = 0, tooMany = 0;
  eachCarrier(mol, [&](const Carrier& c, double amount) {
    grams += amount * c.gramsPerMol;
    tooMany += c.chloridesTooMany * amount;
  });
  return grams - tooMany * chlorideGrams;
}

} // namespace butte::core
