#include "stock/stock_density.h"

#include "chem/atomic_weights.h"
#include "chem/ions.h"
#include "solution/water_properties.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace butte::core {
namespace {

// mL/mol at 25 degC, infinite dilution, conventional scale (V of H+ = 0). Source: Millero, "The partial molal
// volumes of electrolytes in aqueous solutions" (1972), from memory, medium confidence. Order of Ion: NO3 NH4
// K Ca Mg Na H2PO4 SO4 Cl HCO3 H.
constexpr std::array<double, ionCount> molarVolumes{29.0, 17.9, 9.0,  -17.9, -21.2, -1.2,
                                                    29.1, 14.0, 17.8, 23.4,  0.0};
constexpr double limitingSlope = 1.868; // mL L^0.5 mol^-1.5, Redlich & Meyer 1964, from memory
constexpr double unknownMlPerGram = 0.6;
constexpr double waterKgPerMl = waterDensityKgPerLitre / 1000;

/// Grams of the product that its inorganic ions account for (the rest: organic shells, borate, unnamed
/// matter).
bool isInorganicSalt(const Composition& c) {
  return c.formula && c.role == ProductRole::Salt && c.formula->count("C") == 0;
}

} // namespace

StockWater::StockWater(const std::vector<ShelfProduct>& shelf,
                       const std::vector<Concentration>& concentration) {
  NutrientAmounts ionic; // mg/L
  for (std::size_t j = 0; j < shelf.size(); ++j)
    add(shelf[j].composition, concentration[j].gramsPerLitre(), ionic);
  addIons(ionic);
}

StockWater::StockWater(const ShelfProduct& product, Concentration concentration) {
  NutrientAmounts ionic; // mg/L
  add(product.composition, concentration.gramsPerLitre(), ionic);
  addIons(ionic);
}

void StockWater::add(const Composition& product, double gramsPerLitre, NutrientAmounts& ionicMgPerLitre) {
  if (gramsPerLitre <= 0) return;
  if (isInorganicSalt(product))
    ionicMgPerLitre.addScaled(product.massFraction, gramsPerLitre * 1000);
  else
    m_idealMl += unknownMlPerGram * gramsPerLitre * product.anhydrousFraction;
}

void StockWater::addIons(const NutrientAmounts& ionicMgPerLitre) {
  const auto ions = ionBalance(ionicMgPerLitre, 0);
  for (const auto ion : allIons) {
    const int z = std::abs(chargeNumber(ion));
    const double molPerL = ions.of(ion) / z / 1000;
    m_ionStrength += 0.5 * molPerL * z * z;
    m_idealMl += molPerL * molarVolumes[static_cast<std::size_t>(ion)];
    m_slopeMl += molPerL * 0.5 * limitingSlope * z * z;
  }
}

double StockWater::kgPerLitre(double factor) const {
  const double displacedMl = factor * (m_idealMl + m_slopeMl * std::sqrt(factor * m_ionStrength));
  return std::max(0.0, (1000 - displacedMl) * waterKgPerMl);
}

} // namespace butte::core
