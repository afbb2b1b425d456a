#pragma once
#include "product/shelf_product.h"
#include "solution/solution_volume.h"
#include "units/quantity.h"

#include <vector>

namespace butte::core {

/// How much water a litre of stock holds beside its salts, hydrate water included.
///
/// By solution/solution_volume.h for salts, acids and bases. What has no row there takes up room of its own:
/// urea 0.736 mL/g (44.2 mL/mol, handbook value from memory, 2 %), organic matter and what is not known by
/// its formula 0.6 mL/g (common practice, cautious; a tenth of it either way, 0.5 % of the density of a stock
/// that holds 50 g/L of it).
class StockWater {
public:
  /// A stock of these concentrations, to be made `factor` times as strong later.
  StockWater(const std::vector<ShelfProduct>& shelf, const std::vector<Concentration>& concentration,
             Temperature temperature);

  StockWater(const ShelfProduct& product, Concentration concentration, Temperature temperature);

  /// Kilograms of water in a litre at `factor` times the concentrations given; 0 where the salts leave none.
  double kgPerLitre(double factor = 1) const;

  /// The factor at which there is `scale` times as much of everything to a kilogram of water as the
  /// concentrations given have to a litre.
  double factorAt(double scale) const { return scale / litresPerKgWater(scale); }

private:
  void add(const Composition& product, double gramsPerLitre);
  double litresPerKgWater(double scale) const;

  double m_celsius;
  double m_soluteGrams = 0; ///< per litre of what was given, water-free
  double m_otherMl = 0;     ///< taken up by what has no row
  std::vector<VolumePart> m_parts;
};

} // namespace butte::core
