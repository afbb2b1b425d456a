#pragma once
#include "solution/acid_dose.h"

#include <optional>
#include <vector>

namespace butte::core {

/// One reading of a grower's own titration.
struct TitrationReading {
  double dose =
      0; ///< of the acid so far, in grams or mL: the fit's strength is per the same unit; per litre of water
  double ph = 7;
  bool operator==(const TitrationReading&) const = default;
};

/// What is fitted from the readings.
enum class TitrationUnknown {
  Alkalinity, ///< the acid's strength is known
  Strength,   ///< the water's alkalinity is known
  AlkalinityAndStrength
};

struct TitrationRequest {
  Solutes waterPerLitre; ///< its alkalinity is the start, and the truth where only the strength is sought
  double waterKgPerLitre = 0.998;
  Temperature temperature = Temperature::fromCelsius(20);
  Solutes acidPerUnit; ///< as labelled, or a guess of the strength where that is sought
  TitrationUnknown unknown = TitrationUnknown::Alkalinity;
  std::vector<TitrationReading> readings;
  bool operator==(const TitrationRequest&) const = default;
};

struct FittedReading {
  double residualPh = 0; ///< measured less fitted
  bool outlier = false;  ///< left out of the fit
};

struct TitrationFit {
  double alkalinityEqPerLitre = 0;
  double alkalinityStandardError = 0;
  double carbonateMolPerLitre = 0;
  double strengthFactor = 1; ///< of `acidPerUnit`
  double strengthStandardError = 0;
  double initialPh = 7; ///< of the water as fitted, without acid
  double scatterPh = 0; ///< root mean square of the kept residuals
  std::vector<FittedReading> readings;
};

/// Fits a water's effective alkalinity and carbonate (and the strength of a bottle) to readings. At each
/// measured pH the equilibrium gives what a mole of carbonate, the other bases and a unit of acid are worth;
/// the balance
///   alkalinity - carbonate - other bases - strength x dose = 0
/// is then linear in what is sought. Readings are weighted by what an error of the pen (0.05 pH) is worth
/// there; readings far off the curve are left out, one after the other, and named. Errors: TooFewReadings
/// (with how many are needed), NotDeterminable when the readings leave strength and alkalinity tied together
/// (a curve that never passes pH 4.5 knows only their ratio).
Result<TitrationFit> fitTitration(const TitrationRequest& request);

} // namespace butte::core
