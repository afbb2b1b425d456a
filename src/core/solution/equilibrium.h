#pragma once
#include "base/result.h"
#include "solution/equilibrium_data.h"
#include "solution/solutes.h"
#include "units/quantity.h"

#include <array>
#include <optional>
#include <vector>

namespace butte::core {

/// A solid that may fall out, dissolving into components: those of data/equilibria.csv, or a fertilizer salt.
struct SolidPhase {
  Stoichiometry dissolved;
  double lnSolubilityProduct = 0; ///< over the components, at the temperature in question
};

/// By how much a strong solution's activities stand off from those that its pairs and acids give, as natural
/// logarithms (solution/strong_solution.h). All 0 in a feed.
struct StrongCorrection {
  /// Of free ions. Phosphate and carbonate stand in several forms: a solid is made of one of them.
  std::array<double, componentCount> lnActivity{};
  double lnDihydrogenPhosphate = 0, lnHydrogenPhosphate = 0, lnBicarbonate = 0;
  double lnWater = 0;
  /// Gypsum's constant in the dilute model over that which Pitzer's parameters were fitted with.
  double lnGypsum = 0;

  double ofIonProduct(const Stoichiometry& solid) const;
};

struct Equilibrium;

/// Under what conditions a solution settles.
struct EquilibriumConditions {
  Temperature temperature = Temperature::fromCelsius(25);
  std::optional<double> ph;               ///< held; else the pH follows from the net alkalinity
  std::optional<double> carbonDioxideAtm; ///< open to a gas with this partial pressure; else closed
  std::vector<SolidPhase> solids;         ///< that may fall out
  /// A like solution to start from; never changes the answer. Must outlive the call.
  const Equilibrium* start = nullptr;
  /// The last step, in ln of an activity, that needs no further look: what it leaves open is its square.
  double lastStep = 1e-6;
};

/// The last step where a saturation is asked for, which is not known to a thousandth: leaves some 1e-6 of it
/// open.
inline constexpr double lastStepForSaturation = 1e-3;

/// A solution at equilibrium. Molalities are in mol per kg of water.
struct Equilibrium {
  Solutes given; ///< what was settled, per kg of water
  double ph = 7;
  double ionicStrength = 0; ///< mol/kg
  double waterActivity = 1;
  std::vector<double> molality;                    ///< parallel to EquilibriumData::species()
  std::array<double, componentCount> lnActivity{}; ///< minus infinity where there is no such component
  StrongCorrection strong;                         ///< what lnIonProduct() adds to these activities
  double lnHydrogen = 0;                           ///< ln of the activity of H+
  double alkalinityEq = 0;                         ///< per kg: that given, or with a held pH that found
  double carbonateMol = 0;                         ///< per kg: that given, or with an open gas that found
  std::vector<double> solidMol; ///< per kg, parallel to the conditions' solids; 0 where none falls
  int iterations = 0;

  /// ln of the ion product over the components and water; minus infinity where a component is missing.
  double lnIonProduct(const Stoichiometry& solid) const;
};

/// Settles these totals (per kg of water). Mass and charge close to 1e-10 of the totals.
/// Range: 0 to 45 degC. Errors: OutOfRange (where: "temperature_c", "ph", "pco2_atm" or the component),
/// NoEquilibrium when the iteration does not end.
Result<Equilibrium> equilibrate(const Solutes& perKgWater, const EquilibriumConditions& conditions);

/// Total carbonate (mol/kg) that makes the water's alkalinity stand at this pH, everything else as given.
/// Nothing where the pH is too low or the alkalinity too small for any carbonate.
Result<double> carbonateFor(const Solutes& perKgWater, double ph, Temperature temperature);

} // namespace butte::core
