#include "stock/heat_of_solution.h"

#include "base/csv.h"
#include "base/embedded.h"
#include "chem/same_substance.h"
#include "product/catalogue.h"
#include "stock/solubility.h"
#include "units/constants.h"

#include <cmath>
#include <vector>

namespace butte::core {
namespace {

struct HeatRow {
  const ChemicalFormula* formula = nullptr;
  double kilojoulesPerMol = 0;        ///< taken from the water, at infinite dilution
  std::optional<double> halfWaterMol; ///< acids: the water at which half of the heat is out
};

std::vector<HeatRow> readRows() {
  std::vector<HeatRow> rows;
  const CsvTable csv(embedded::heats_of_solution());
  for (std::size_t i = 0; i < csv.rowCount(); ++i) {
    const auto* product = findInCatalogue(csv.cell(i, "product_id"));
    const auto heat = csv.number(i, "heat_kj_per_mol");
    if (product && heat && product->composition.formula)
      rows.push_back({&*product->composition.formula, *heat, csv.number(i, "half_water_mol")});
  }
  return rows;
}

const HeatRow* rowFor(const ShelfProduct& product) {
  static const std::vector<HeatRow> rows = readRows();
  if (!product.composition.formula) return nullptr;
  const auto& formula = *product.composition.formula;
  for (const auto& row : rows) {
    if (sameSubstance(*row.formula, formula) &&
        std::abs(row.formula->hydrateWaterCount - formula.hydrateWaterCount) < 1e-9)
      return &row;
  }
  return nullptr;
}

} // namespace

double molesOf(const ShelfProduct& product, Mass mass) {
  const auto& c = product.composition;
  if (!c.formula) return 0;
  const double anhydrousGramsPerMol =
      c.formula->molarMassGPerMol - c.formula->hydrateWaterCount * constant::waterGramsPerMol;
  return mass.grams() * c.anhydrousFraction / anhydrousGramsPerMol;
}

std::optional<double> heatTakenKilojoules(const ShelfProduct& product, Mass mass) {
  const auto* row = rowFor(product);
  if (!row || row->halfWaterMol) return std::nullopt;
  return row->kilojoulesPerMol * molesOf(product, mass);
}

std::optional<double> heatOfDilutionKilojoules(const ShelfProduct& acid, Mass mass, double waterMolPerMol) {
  const auto* row = rowFor(acid);
  if (!row || !row->halfWaterMol) return std::nullopt;
  const double moles = molesOf(acid, mass);
  if (moles <= 0) return 0;
  const double bottleWater =
      mass.grams() * (1 - acid.composition.anhydrousFraction) / constant::waterGramsPerMol / moles;
  // Thomsen's form: the heat given off with n of water is a n / (n + b).
  const auto givenOff = [&](double n) { return -row->kilojoulesPerMol * n / (n + *row->halfWaterMol); };
  return moles * (givenOff(waterMolPerMol) - givenOff(bottleWater));
}

} // namespace butte::core
