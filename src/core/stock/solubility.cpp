#include "stock/solubility.h"

#include "base/csv.h"
#include "base/embedded.h"
#include "product/catalogue.h"

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

bool sameAtoms(const ChemicalFormula& a, const ChemicalFormula& b, bool ignoreHydrateWater) {
  constexpr double waterGPerMol = 18.015;
  const auto mass = [&](const ChemicalFormula& f) {
    return f.molarMassGPerMol - (ignoreHydrateWater ? f.hydrateWaterCount * waterGPerMol : 0);
  };
  if (std::abs(mass(a) - mass(b)) > 1e-6) return false; // spares most comparisons
  const auto count = [&](const ChemicalFormula& f, const std::string& symbol) {
    double n = f.count(symbol);
    if (ignoreHydrateWater && symbol == "H") n -= 2 * f.hydrateWaterCount;
    if (ignoreHydrateWater && symbol == "O") n -= f.hydrateWaterCount;
    return n;
  };
  const auto covers = [&](const ChemicalFormula& x, const ChemicalFormula& y) {
    return std::all_of(x.atoms.begin(), x.atoms.end(), [&](const auto& atom) {
      return std::abs(count(x, atom.first) - count(y, atom.first)) < 1e-9;
    });
  };
  return covers(a, b) && covers(b, a);
}

} // namespace

bool sameSubstance(const ChemicalFormula& a, const ChemicalFormula& b) {
  return sameAtoms(a, b, true);
}

std::optional<double> anhydrousGramsPerKgWater(const ChemicalFormula& formula, Temperature temperature) {
  static const std::vector<Curve> curves = readCurves();
  for (const bool ignoreHydrateWater : {false, true}) {
    std::optional<double> smallest;
    for (const auto& curve : curves) {
      if (!sameAtoms(*curve.formula, formula, ignoreHydrateWater)) continue;
      const auto value = interpolate(curve, temperature.celsius());
      if (!value) return std::nullopt;
      smallest = smallest ? std::min(*smallest, *value) : *value;
    }
    if (smallest) return smallest;
  }
  return std::nullopt;
}

} // namespace butte::core
