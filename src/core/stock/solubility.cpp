#include "stock/solubility.h"

#include "base/csv.h"
#include "base/embedded.h"
#include "product/catalogue.h"
#include "units/constants.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <string>
#include <vector>

namespace butte::core {
namespace {

struct Curve {
  const ChemicalFormula* formula = nullptr;
  std::vector<std::pair<double, double>> points; ///< degC, g anhydrous per kg of total water; ascending
};

/// Grams of water-free substance per kg of all water, from a table row on its own basis.
double onAnhydrousBasis(const Composition& product, std::string_view basis, double gPer100gWater) {
  const double perKg = gPer100gWater * 10;
  if (basis == "anhydrous") return perKg;
  // Grams of the sold form per kg of added water: its hydrate water joins the water.
  const double hydrate = hydrateWaterFraction(*product.formula);
  return perKg * (1 - hydrate) / (1 + perKg / 1000 * hydrate);
}

std::vector<Curve> readCurves() {
  std::map<std::string, Curve> byProduct;
  const CsvTable csv(embedded::solubility());
  for (std::size_t row = 0; row < csv.rowCount(); ++row) {
    const auto* product = findInCatalogue(csv.cell(row, "product_id"));
    const auto celsius = csv.number(row, "temperature_c");
    const auto grams = csv.number(row, "g_per_100g_water");
    if (!product || !celsius || !grams) continue;
    auto& curve = byProduct[product->id];
    curve.formula = &*product->composition.formula;
    curve.points.emplace_back(*celsius,
                              onAnhydrousBasis(product->composition, csv.cell(row, "basis"), *grams));
  }
  std::vector<Curve> curves;
  for (auto& [id, curve] : byProduct) {
    std::sort(curve.points.begin(), curve.points.end());
    curves.push_back(std::move(curve));
  }
  return curves;
}

std::optional<double> interpolate(const Curve& curve, double celsius) {
  const auto& p = curve.points;
  if (celsius < p.front().first || celsius > p.back().first) return std::nullopt;
  const auto upper = std::lower_bound(p.begin(), p.end(), celsius,
                                      [](const auto& point, double c) { return point.first < c; });
  if (upper->first == celsius) return upper->second;
  const auto lower = upper - 1;
  const double t = (celsius - lower->first) / (upper->first - lower->first);
  return std::exp(std::log(lower->second) * (1 - t) + std::log(upper->second) * t);
}

bool sameSubstance(const ChemicalFormula& a, const ChemicalFormula& b, bool ignoreHydrateWater) {
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
  return sameSubstance(a, b, true);
}

std::optional<double> anhydrousGramsPerKgWater(const ChemicalFormula& formula, Temperature temperature) {
  static const std::vector<Curve> curves = readCurves();
  for (const bool ignoreHydrateWater : {false, true}) {
    std::optional<double> smallest;
    for (const auto& curve : curves) {
      if (!sameSubstance(*curve.formula, formula, ignoreHydrateWater)) continue;
      const auto value = interpolate(curve, temperature.celsius());
      if (!value) return std::nullopt;
      smallest = smallest ? std::min(*smallest, *value) : *value;
    }
    if (smallest) return smallest;
  }
  return std::nullopt;
}

} // namespace butte::core
