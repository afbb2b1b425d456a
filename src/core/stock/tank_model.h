#pragma once
#include "product/shelf_product.h"
#include "stock/stock.h"
#include "stock/stock_density.h"
#include "units/quantity.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// A liquid acid or base: it can't crystallise out of a tank.
inline bool isMiscible(const ShelfProduct& p) {
  return p.liquid && isAcidOrBase(p);
}

/// A tank at any factor and one temperature. All that its salts bring rises together: by `scale`, the factor
/// over the free water of a litre; what its make-up water brings stays as it is.
class TankModel {
public:
  /// `atFactorOne`: what of each product of the shelf goes through this tank, per litre of feed. The shelf
  /// must outlive the model.
  TankModel(const std::vector<ShelfProduct>& shelf, std::vector<Concentration> atFactorOne,
            const Solutes& makeUpPerLitre, Temperature temperature, double factor);

  bool holds(std::size_t j) const { return m_feed[j] > Concentration{}; }
  bool known(std::size_t j) const { return m_critical[j].has_value(); }
  Concentration strength(std::size_t j) const { return m_feed[j] * m_factor; }
  double water(double factor) const { return m_water.kgPerLitre(factor); }
  const TankChemistry& chemistry() const { return m_chemistry; }
  /// Solids in reach, the nearest first.
  const std::vector<TankSolid>& solids() const { return m_solids; }
  /// Of the tank at this factor; nothing where the chemistry does not reach.
  std::optional<double> ph() const;

  /// The factor over the factor at which this product begins to fall.
  std::optional<double> saturation(std::size_t j) const;

  struct Ceiling {
    double factor = 0;
    std::optional<std::size_t> product;
    std::string solid; ///< where no product is what gives out
  };
  /// The factor at which the first known solid begins to fall, and which that is. What falls out of the
  /// make-up water at any strength is no ceiling: see fallsAtAnyStrength().
  std::optional<Ceiling> ceiling() const;

  /// True when a product of this tank is the salt itself, so that it speaks for it.
  bool isProduct(const TankSolid& solid) const;

  /// What lies on the floor at this factor, the most first. Of a salt without a solid of its own in the
  /// chemistry: what is above its own solubility.
  std::vector<Fallen> fallen() const;

  /// All that a litre of the tank holds when it has settled, in mol: what lies on the floor is taken off.
  Solutes dissolvedPerLitre() const;

  /// Of a carbonate that falls although no salt of the tank brings any: it is the make-up water's own lime,
  /// and no more of it can fall than the water holds. That is no ceiling of the salts.
  bool fallsAtAnyStrength(const TankSolid& solid) const;

private:
  std::vector<std::optional<std::size_t>> saltsHeld() const;
  double scale() const;
  Solutes solutesAtScaleOne() const;
  void standSolids();
  void findAmounts();
  double roughlyFallen(const TankSolid& solid) const;
  std::optional<double> criticalFactor(std::size_t j, Temperature temperature) const;

  const std::vector<ShelfProduct>& m_shelf;
  std::vector<Concentration> m_feed;
  Solutes m_makeUp; ///< per kg of water
  StockWater m_water;
  double m_factor;
  TankChemistry m_chemistry;
  std::vector<std::optional<std::size_t>> m_salts; ///< of each product held, its index into saltSolids()
  std::vector<double> m_reachFactors;              ///< parallel to m_solids: where each begins to fall
  std::vector<TankSolid> m_solids;
  std::vector<std::optional<double>> m_critical; ///< factor at which each product begins to fall
};

} // namespace butte::core
