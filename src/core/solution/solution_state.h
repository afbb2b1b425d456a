#pragma once
#include "base/result.h"
#include "solution/equilibrium.h"
#include "units/quantity.h"

#include <optional>
#include <vector>

namespace butte::core {

/// How a solid stands in a solution.
struct SolidStanding {
  std::size_t solid = 0;      ///< index into EquilibriumData::solids()
  double saturationIndex = 0; ///< log10 of (ion product / solubility product); above 0: over-saturated
  double gramsPerLitre = 0;   ///< that fall out at equilibrium, of solids that form within hours
  double gramsPerLitreInTheEnd =
      0; ///< with the slow ones too: what a very long time would leave on the floor
};

/// What stands in a solution, and what would come of it.
struct SolutionState {
  Equilibrium settled; ///< as mixed, before anything falls out
  double waterKgPerLitre = 1;
  double ph = 7;
  std::vector<SolidStanding> solids;   ///< those whose ions are all present
  std::optional<double> phAfterSolids; ///< once those of hours have fallen; nothing where none falls
  Solutes leftPerLitre;                ///< what the water still holds then
};

/// True for solids that show within minutes or hours by common experience. Slower ones may stand above their
/// solubility for weeks in a clear feed.
bool formsSoon(FormsWithin kinetics);

/// Air at present: 0.00042 atm (global mean, from memory).
inline constexpr double airCarbonDioxideAtm = 4.2e-4;

/// Settles a solution of these totals per litre.
Result<SolutionState> stateOf(const Solutes& perLitre, double waterKgPerLitre,
                              const EquilibriumConditions& conditions);

/// Conductivity at 25 degC of these totals per litre, closed to the air. Errors as equilibrate().
Result<Conductivity> conductivityAt25(const Solutes& perLitre, double waterKgPerLitre,
                                      const EquilibriumConditions& conditions);

/// Conductivity at the temperature asked for, closed to the air. Errors as equilibrate().
Result<Conductivity> conductivityAt(Temperature temperature, const Solutes& perLitre, double waterKgPerLitre,
                                    const EquilibriumConditions& conditions);

} // namespace butte::core
