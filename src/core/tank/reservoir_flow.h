#pragma once
#include "tank/reservoir_content.h"

#include <optional>

namespace butte::core {

/// What plants take with each litre that they transpire: the uptake concentrations, as long as there is any
/// in the tank; and besides this share of the concentration that stands there (sodium and chloride are
/// taken the more, the more there is).
struct Uptake {
  NutrientAmounts millimolesPerLitre;
  NutrientAmounts shareOfConcentration;
  bool operator==(const Uptake&) const = default;
};

/// What runs in and out of a tank all the time.
struct ReservoirFlow {
  double transpirationLPerDay = 0; ///< through the plants, with their uptake
  double evaporationLPerDay = 0;   ///< pure water
  double rainLPerDay = 0;          ///< pure water
  double drainLPerDay = 0;         ///< as it stands in the tank at the moment
  Uptake uptake;

  double netLPerDay() const { return rainLPerDay - transpirationLPerDay - evaporationLPerDay - drainLPerDay; }
};

/// A tank after some time, and where all of it went.
struct Passage {
  ReservoirContent content;
  NutrientAmounts takenMilligrams, drainedMilligrams;
  double takenAlkalinityMeq = 0; ///< by the roots; negative: given back for anions
  double drainedAlkalinityMeq = 0;
  Volume transpired, evaporated, rained, drained;
  std::optional<double> dryAfterDays; ///< it ran empty: nothing flows from then on
};

/// Lets everything run evenly and at once. Exact: each element's balance dm/dt = -U - k m / V with V changing
/// evenly has a closed solution, and so has the time at which an element is gone. The roots give back as
/// alkalinity what they take of anions over cations, and the other way round, so mass and charge close to
/// rounding.
Passage passed(const ReservoirContent& tank, const ReservoirFlow& flow, double days);

} // namespace butte::core
