#pragma once
#include "base/result.h"
#include "chem/nutrient.h"

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace butte::core {

/// One row of a water report in mg/L of what the key says: an element ("Ca", "N_NO3"), an ion ("SO4",
/// "HCO3"), an oxide ("P2O5"), "alkalinity_as_CaCO3" or "hardness_as_CaCO3".
using WaterRow = std::pair<std::string, double>;

/// What in a report had to be interpreted or does not fit.
enum class WaterRemark {
  Pure,                   ///< no water was given: pure water is meant
  OnlyConductivity,       ///< composition unknown, EC known
  CompositionUnknown,     ///< neither analysis nor EC
  AlkalinityDisagrees,    ///< HCO3 and alkalinity as CaCO3 differ; HCO3 is used
  HardnessDisagrees,      ///< hardness and Ca with Mg differ; Ca and Mg are used
  HardnessSplitAssumed,   ///< hardness without Ca and Mg: split by an assumed ratio
  NitrogenTakenAsNitrate, ///< a bare N
  ChargeUnbalanced,       ///< cations and anions differ by more than the tolerance
};

/// A source water in normal form. What the report did not say is unknown; sums count it as nothing.
struct Water {
  NutrientAmounts milligramsPerLitre;
  std::optional<double> alkalinityMeqPerL;
  std::optional<double> conductivityMsPerCm; ///< as read by a meter
  std::optional<double> ph;
  std::optional<double> temperatureCelsius;
  bool compositionKnown = true;
  std::vector<WaterRemark> remarks;
};

/// Pure water, for when no water is given at all.
Water pureWater();

/// What a grower gives of a water.
struct WaterReport {
  std::vector<WaterRow> milligramsPerLitre;
  std::optional<double> conductivityMsPerCm;
  std::optional<double> ph;
  std::optional<double> temperatureCelsius;
};

/// Brings a report to normal form. Errors: UnknownKey, OutOfRange, DuplicateKey (two keys for one element).
Result<Water> normaliseWater(const WaterReport& report);

/// The keys a report may use.
std::vector<std::string> waterKeys();

} // namespace butte::core
