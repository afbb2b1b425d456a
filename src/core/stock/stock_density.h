#pragma once
#include "product/shelf_product.h"
#include "units/quantity.h"

#include <vector>

namespace butte::core {

/// How much water a litre of stock holds beside its salts, hydrate water included.
///
/// A litre of stock less the volume that its dissolved ions take up: apparent molar volumes at infinite
/// dilution (Millero, 1972, from memory) with the Debye-Hueckel limiting slope; organic matter and what is
/// not known by its formula at 0.6 mL/g (common practice, cautious).
class StockWater {
public:
  /// A stock of these concentrations, to be made `factor` times as strong later.
  StockWater(const std::vector<ShelfProduct>& shelf, const std::vector<Concentration>& concentration);

  StockWater(const ShelfProduct& product, Concentration concentration);

  /// Kilograms of water in a litre at `factor` times the concentrations given; never below 0.
  double kgPerLitre(double factor = 1) const;

private:
  void add(const Composition& product, double gramsPerLitre, NutrientAmounts& ionicMgPerLitre);
  void addIons(const NutrientAmounts& ionicMgPerLitre);

  double m_ionStrength = 0; ///< mol/L
  double m_idealMl = 0;     ///< displaced at infinite dilution, with the unknown matter
  double m_slopeMl = 0;     ///< displaced per sqrt(ionic strength)
};

} // namespace butte::core
