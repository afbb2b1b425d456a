#include "stock/salt_solids.h"

#include "base/csv.h"
#include "base/embedded.h"
#include "chem/same_substance.h"
#include "product/catalogue.h"
#include "product/role.h"
#include "solution/equilibrium.h"
#include "stock/solubility.h"
#include "units/constants.h"

#include <algorithm>
#include <array>
#include <cassert>
#include <cmath>

namespace butte::core {
namespace {

Solutes perMole(const ChemicalFormula& formula) {
  const auto pure = compositionFromFormula(formula.text, 100);
  return pure ? pure->solutesPerGram.scaled(formula.molarMassGPerMol) : Solutes{};
}

double anhydrousMolarMass(const ChemicalFormula& formula) {
  return formula.molarMassGPerMol * (1 - hydrateWaterFraction(formula));
}

/// A salt written over the components; its hydrogen follows from the charge that the other ions leave.
Stoichiometry dissolvedOf(const ChemicalFormula& formula) {
  const auto solutes = perMole(formula);
  Stoichiometry out;
  out.water = formula.hydrateWaterCount;
  out.hydrogen =
      2 * solutes.of(Component::Carbonate) + 2 * solutes.of(Component::Phosphate) - solutes.alkalinityEq;
  if (std::abs(out.hydrogen) < 1e-9) out.hydrogen = 0;
  for (const auto c : allComponents) {
    if (solutes.of(c) > 1e-12) out.components.emplace_back(static_cast<std::size_t>(c), solutes.of(c));
  }
  return out;
}

bool crystallises(const CatalogueProduct& product) {
  const auto& f = *product.composition.formula;
  // Minerals such as gypsum are among the chemistry's own solids.
  if (EquilibriumData::instance().solidIndex(product.id)) return false;
  return product.composition.role == ProductRole::Salt && f.count("Mo") == 0 &&
         f.count("C") == f.carbonateCount &&
         anhydrousGramsPerKgWater(f, Temperature::fromCelsius(20)).has_value();
}

/// Takes a salt with a measured solubility, or the more hydrated form of one that is there.
void takeMeasured(std::vector<SaltSolid>& salts, const std::string& name, const ChemicalFormula& formula) {
  const auto known = std::find_if(salts.begin(), salts.end(), [&](const SaltSolid& other) {
    return sameSubstance(other.formula, formula);
  });
  if (known == salts.end())
    salts.push_back({name, formula, dissolvedOf(formula), {}});
  else if (hydrateWaterFraction(formula) > hydrateWaterFraction(known->formula))
    *known = {name, formula, dissolvedOf(formula), {}};
}

std::vector<SaltSolid> readSalts() {
  std::vector<SaltSolid> salts;
  for (const auto& product : catalogue()) {
    if (crystallises(product)) takeMeasured(salts, product.shortName, *product.composition.formula);
  }
  const CsvTable csv(embedded::crystals());
  for (std::size_t row = 0; row < csv.rowCount(); ++row) {
    const auto& name = csv.cell(row, "name");
    const auto formula = parseFormula(csv.cell(row, "formula"));
    assert(formula && "data/crystals.csv has a formula that can't be read");
    if (csv.number(row, "log_k_25c"))
      salts.push_back({name, *formula, dissolvedOf(*formula), reactionConstant(csv, row)});
    else
      takeMeasured(salts, name, *formula);
  }
  return salts;
}

std::optional<double> lnIonProductWhenSaturated(const SaltSolid& salt, Temperature temperature) {
  const auto grams = anhydrousGramsPerKgWater(salt.formula, temperature);
  if (!grams) return std::nullopt;
  EquilibriumConditions conditions;
  conditions.temperature = temperature;
  const auto settled =
      equilibrate(perMole(salt.formula).scaled(*grams / anhydrousMolarMass(salt.formula)), conditions);
  if (!settled) return std::nullopt;
  return settled->lnIonProduct(salt.dissolved);
}

std::optional<double> workOut(std::size_t index, Temperature temperature) {
  const auto& salt = saltSolids()[index];
  if (salt.constant) return salt.constant->log10At(temperature.celsius() + 273.15) * constant::ln10;
  return lnIonProductWhenSaturated(salt, temperature);
}

/// What has been worked out at one temperature, salt by salt as it is asked for.
struct KeptConstants {
  double celsius = std::nan("");
  std::vector<std::optional<std::optional<double>>> ln;
};

} // namespace

const std::vector<SaltSolid>& saltSolids() {
  static const std::vector<SaltSolid> salts = readSalts();
  return salts;
}

std::optional<std::size_t> saltSolidOf(const ChemicalFormula& formula) {
  const auto& salts = saltSolids();
  for (std::size_t i = 0; i < salts.size(); ++i) {
    if (sameSubstance(salts[i].formula, formula)) return i;
  }
  return std::nullopt;
}

std::optional<double> lnSaltSolubility(std::size_t salt, Temperature temperature) {
  // A function of its arguments alone; kept, since a plan asks many times at few temperatures.
  thread_local std::array<KeptConstants, 8> kept;
  thread_local std::size_t oldest = 0;
  auto place = std::find_if(kept.begin(), kept.end(),
                            [&](const KeptConstants& k) { return k.celsius == temperature.celsius(); });
  if (place == kept.end()) {
    place = kept.begin() + static_cast<std::ptrdiff_t>(oldest);
    oldest = (oldest + 1) % kept.size();
    place->celsius = temperature.celsius();
    place->ln.assign(saltSolids().size(), std::nullopt);
  }
  auto& known = place->ln[salt];
  if (!known) known = workOut(salt, temperature);
  return *known;
}

} // namespace butte::core
