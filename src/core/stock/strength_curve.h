#pragma once
#include "solution/equilibrium.h"

#include <optional>
#include <vector>

namespace butte::core {

/// Where every solid of a solution stands as the solution is made stronger or weaker: ln of ion product over
/// solubility product, by ln of the strength. What the make-up water brings stays as it is.
class StrengthCurve {
public:
  /// `perKgWater` at strength 1, beside `waterPerKg` at any; both per kilogram of water.
  StrengthCurve(Solutes perKgWater, Solutes waterPerKg, Temperature temperature,
                std::vector<SolidPhase> solids);

  struct Point {
    double lnStrength = 0;
    std::vector<double> lnSaturation; ///< parallel to the solids
    double ph = 7;
  };
  /// Nothing where the chemistry does not reach.
  std::optional<Point> at(double lnStrength);

  Solutes totals(double lnStrength) const;

private:
  struct Known {
    double lnStrength;
    Equilibrium settled;
  };
  std::optional<Equilibrium> expected(double lnStrength, const Solutes& totals) const;

  Solutes m_perKg, m_waterPerKg;
  EquilibriumConditions m_conditions;
  std::vector<SolidPhase> m_solids;
  std::vector<Known> m_known;
};

/// The strength at which the first of some solids begins to fall.
struct FirstFall {
  StrengthCurve::Point at;          ///< there; or the strongest that was looked at, where none falls
  std::optional<std::size_t> solid; ///< nothing where none falls
  std::vector<double> slope;        ///< d ln saturation / d ln strength there, of each solid
  /// False for a solid that was not to be looked at, or falls even in the thinnest: what the water drops by
  /// itself.
  std::vector<bool> counts;
};

/// Looked for between 1/16384 and 64 mol of solutes to a kilogram of water: one step of the same ladder after
/// the other, whatever the strength that is asked about. `counts` tells which of the solids are looked at.
/// Nothing where the chemistry knows no point of it.
std::optional<FirstFall> firstFall(StrengthCurve& curve, double molPerKgAtStrengthOne,
                                   const std::vector<bool>& counts);

} // namespace butte::core
