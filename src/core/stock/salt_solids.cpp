#include "stock/salt_solids.h"

#include "product/catalogue.h"
#include "product/role.h"
#include "solution/equilibrium.h"
#include "stock/solubility.h"

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

std::vector<SaltSolid> readSalts() {
  std::vector<SaltSolid> salts;
  for (const auto& product : catalogue()) {
    if (!crystallises(product)) continue;
    const auto& formula = *product.composition.formula;
    bool known = false;
    for (auto& other : salts) {
      if (!sameSubstance(other.formula, formula)) continue;
      known = true;
      if (hydrateWaterFraction(formula) > hydrateWaterFraction(other.formula))
        other = {product.id, product.shortName, formula, dissolvedOf(formula)};
    }
    if (!known) salts.push_back({product.id, product.shortName, formula, dissolvedOf(formula)});
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

const std::vector<std::optional<double>>& conditionalSolubility(Temperature temperature) {
  // A function of the temperature alone; the last one is kept, since a plan asks for it many times.
  thread_local double celsius = std::nan("");
  thread_local std::vector<std::optional<double>> constants;
  if (celsius != temperature.celsius()) {
    constants.clear();
    for (const auto& salt : saltSolids())
      constants.push_back(lnIonProductWhenSaturated(salt, temperature));
    celsius = temperature.celsius();
  }
  return constants;
}

} // namespace butte::core
