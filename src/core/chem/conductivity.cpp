#include "chem/conductivity.h"

#include "base/csv.h"
#include "base/embedded.h"
#include "chem/atomic_weights.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <string>

namespace butte::core {
namespace {

/// A charged species in mol/L.
struct Species {
  double molPerL = 0;
  int charge = 0;
  double limiting = 0;   ///< S cm2/mol
  double logPairing = 0; ///< log10 K with sulfate; 0 where it does not pair
};

double limitingConductivity(std::string_view ion) {
  static const auto table = [] {
    std::map<std::string, double, std::less<>> values;
    const CsvTable csv(embedded::ions());
    for (std::size_t row = 0; row < csv.rowCount(); ++row)
      values[csv.cell(row, "ion")] =
          csv.number(row, "limiting_molar_conductivity_25c_S_cm2_per_mol").value_or(0);
    return values;
  }();
  const auto it = table.find(ion);
  return it == table.end() ? 0 : it->second;
}

// log10 K of MeSO4(aq) at 25 degC, ionic strength 0: WATEQ4F / PHREEQC database values, from memory
// (2.25 to 2.37 across compilations; Ca, Mg, Zn high confidence, Fe, Mn, Cu medium).
double sulfatePairing(Ion ion) {
  if (ion == Ion::Ca) return 2.30;
  if (ion == Ion::Mg) return 2.37;
  return 0;
}

struct TraceMetal {
  Nutrient nutrient;
  std::string_view ion;
  double logPairing;
};
constexpr std::array<TraceMetal, 3> traceMetals{
    {{Nutrient::Mn, "Mn", 2.25}, {Nutrient::Zn, "Zn", 2.37}, {Nutrient::Cu, "Cu", 2.31}}};

double ionicStrength(const std::array<Species, ionCount + traceMetals.size()>& all) {
  double sum = 0;
  for (const auto& s : all)
    sum += 0.5 * s.molPerL * s.charge * s.charge;
  return sum;
}

/// Davies equation, 25 degC: log10 gamma = -0.509 z^2 (sqrt I / (1 + sqrt I) - 0.3 I). Held level past 0.5
/// mol/L, where it has no meaning.
double logGamma(int charge, double strength) {
  const double i = std::min(strength, 0.5);
  const double root = std::sqrt(i);
  return -0.509 * charge * charge * (root / (1 + root) - 0.3 * i);
}

} // namespace

Conductivity estimateConductivity(const IonBalance& ions, const NutrientAmounts& milligramsPerLitre) {
  std::array<Species, ionCount + traceMetals.size()> all{};
  std::size_t n = 0;
  for (const auto ion : allIons) {
    const int charge = chargeNumber(ion);
    all[n++] = {ions.of(ion) / std::abs(charge) / 1000, charge, limitingConductivity(ionKey(ion)),
                sulfatePairing(ion)};
  }
  for (const auto& metal : traceMetals)
    all[n++] = {milligramsPerLitre.of(metal.nutrient) / 1000 / *atomicWeight(nutrientKey(metal.nutrient)), 2,
                limitingConductivity(metal.ion), metal.logPairing};

  auto free = all;
  auto& sulfate = free[static_cast<std::size_t>(Ion::SO4)];
  const double sulfateTotal = sulfate.molPerL;
  // Fixed point: pairs lower the ionic strength, which strengthens the pairs. It contracts quickly.
  for (int iteration = 0; iteration < 30 && sulfateTotal > 0; ++iteration) {
    const double gammaSquared = std::pow(10, 2 * logGamma(2, ionicStrength(free)));
    double load = 1;
    const double before = sulfate.molPerL;
    for (std::size_t i = 0; i < all.size(); ++i) {
      if (all[i].logPairing <= 0) continue;
      const double k = std::pow(10, all[i].logPairing) * gammaSquared;
      free[i].molPerL = all[i].molPerL / (1 + k * sulfate.molPerL);
      load += k * free[i].molPerL;
    }
    sulfate.molPerL = 0.5 * (before + sulfateTotal / load);
    if (std::abs(sulfate.molPerL - before) < 1e-13) break;
  }

  const double strength = ionicStrength(free);
  double conductance = 0; // mS/cm: (mol/L) * (S cm2/mol)
  for (const auto& s : free) {
    if (s.molPerL <= 0) continue;
    const double z = std::abs(s.charge);
    const double exponent = strength < 0.36 * z ? 0.6 / std::sqrt(z) : std::sqrt(strength) / z;
    conductance += s.molPerL * s.limiting * std::pow(10, exponent * logGamma(s.charge, strength));
  }
  return Conductivity::fromMilliSiemensPerCm(conductance);
}

Conductivity conductivityByRule(const IonBalance& ions) {
  return Conductivity::fromMilliSiemensPerCm(ions.cationsMeqPerL() / 10);
}

} // namespace butte::core
