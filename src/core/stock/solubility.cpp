#include "stock/solubility.h"

#include "base/csv.h"
#include "base/embedded.h"
#include "chem/same_substance.h"
#include "product/catalogue.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <string>
#include <vector>

namespace butte::core {
namespace {

constexpr double kelvinAtZeroCelsius = 273.15;

struct Curve {
  ChemicalFormula formula;
  std::vector<std::pair<double, double>> points; ///< degC, g anhydrous per kg of total water; ascending
};

/// Grams of water-free substance per kg of all water, from a table row on its own basis.
double onAnhydrousBasis(const ChemicalFormula& formula, std::string_view basis, double gPer100gWater) {
  const double perKg = gPer100gWater * 10;
  if (basis == "anhydrous") return perKg;
  // Grams of the sold form per kg of added water: its hydrate water joins the water.
  const double hydrate = hydrateWaterFraction(formula);
  return perKg * (1 - hydrate) / (1 + perKg / 1000 * hydrate);
}

/// The formula that a row stands for: of a product of the catalogue, or itself.
std::optional<ChemicalFormula> formulaOf(const std::string& substance) {
  if (const auto* product = findInCatalogue(substance)) return product->composition.formula;
  if (auto formula = parseFormula(substance)) return std::move(formula).value();
  return std::nullopt;
}

std::vector<Curve> readCurves() {
  std::map<std::string, Curve> bySubstance;
  const CsvTable csv(embedded::solubility());
  for (std::size_t row = 0; row < csv.rowCount(); ++row) {
    const auto& substance = csv.cell(row, "substance");
    auto formula = formulaOf(substance);
    const auto celsius = csv.number(row, "temperature_c");
    const auto grams = csv.number(row, "g_per_100g_water");
    if (!formula || !celsius || !grams) continue;
    auto& curve = bySubstance[substance];
    curve.formula = *std::move(formula);
    curve.points.emplace_back(*celsius, onAnhydrousBasis(curve.formula, csv.cell(row, "basis"), *grams));
  }
  std::vector<Curve> curves;
  for (auto& [substance, curve] : bySubstance) {
    std::sort(curve.points.begin(), curve.points.end());
    curves.push_back(std::move(curve));
  }
  return curves;
}

std::optional<double> interpolate(const Curve& curve, double celsius) {
  const auto& p = curve.points;
  if (p.size() == 1) {
    if (std::abs(celsius - p.front().first) > reachOfOneFigureKelvin) return std::nullopt;
    return p.front().second;
  }
  if (celsius < p.front().first || celsius > p.back().first) return std::nullopt;
  const auto upper = std::lower_bound(p.begin() + 1, p.end() - 1, celsius,
                                      [](const auto& point, double c) { return point.first < c; });
  const auto lower = upper - 1;
  const auto reciprocal = [](double c) { return 1 / (c + kelvinAtZeroCelsius); };
  const double t = (reciprocal(celsius) - reciprocal(lower->first)) /
                   (reciprocal(upper->first) - reciprocal(lower->first));
  return std::exp(std::log(lower->second) * (1 - t) + std::log(upper->second) * t);
}

} // namespace

std::optional<double> anhydrousGramsPerKgWater(const ChemicalFormula& formula, Temperature temperature) {
  static const std::vector<Curve> curves = readCurves();
  for (const bool ignoreHydrateWater : {false, true}) {
    std::optional<double> smallest;
    for (const auto& curve : curves) {
      if (!(ignoreHydrateWater ? sameSubstance : sameFormula)(curve.formula, formula)) continue;
      const auto value = interpolate(curve, temperature.celsius());
      if (!value) return std::nullopt;
      smallest = smallest ? std::min(*smallest, *value) : *value;
    }
    if (smallest) return smallest;
  }
  return std::nullopt;
}

} // namespace butte::core
