#pragma once
#include "base/result.h"
#include "chem/nutrient.h"

#include <array>
#include <optional>
#include <set>
#include <string>
#include <string_view>
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
  BelowDetection,         ///< a figure is "less than": half of it is taken, give or take that half
  Estimated,              ///< parts are a guess from EC, hardness and alkalinity, with its range
};

/// What a report may state beside ions that feed or balance: judged, never reckoned with.
enum class WaterExtra {
  Fluoride,
  Aluminium,
  Arsenic,
  Cadmium,
  Chromium,
  Beryllium,
  Cobalt,
  Lithium,
  Nickel,
  Lead,
  Selenium,
  Vanadium,
  DissolvedSolids,
  FreeChlorine,
  Chloramine,
  HydrogenSulfide,
  SuspendedSolids
};
inline constexpr std::size_t waterExtraCount = 17;
/// "F", "TDS", "free_chlorine" ...
std::string_view waterExtraKey(WaterExtra extra);
std::optional<WaterExtra> waterExtraFromKey(std::string_view key);

/// A source water in normal form. What the report did not say is unknown; sums count it as nothing.
struct Water {
  NutrientAmounts milligramsPerLitre;
  std::optional<double> alkalinityMeqPerL;
  std::optional<double> conductivityMsPerCm; ///< as read by a meter
  std::optional<double> ph;
  std::optional<double> temperatureCelsius;
  bool compositionKnown = true;
  /// What the report (or its hardness) states; N is never set.
  std::array<bool, nutrientCount> measured{};
  /// How far a figure may be off either way: half of a "less than", an estimate's range. 0 where it was
  /// measured.
  NutrientAmounts plusMinusMgPerL;
  double alkalinityPlusMinusMeqPerL = 0;
  std::array<std::optional<double>, waterExtraCount> extras{}; ///< mg/L, by WaterExtra
  std::vector<WaterRemark> remarks;
  bool operator==(const Water&) const = default;
};

/// Pure water: what is not measured in it is not there.
bool holdsNothing(const Water& water);

/// Pure water, for when no water is given at all.
Water pureWater();

/// What a grower gives of a water.
struct WaterReport {
  std::vector<WaterRow> milligramsPerLitre;
  std::optional<double> conductivityMsPerCm;
  std::optional<double> ph;
  std::optional<double> temperatureCelsius;
  std::set<std::string> below; ///< keys whose figure is a limit of detection
};

/// Brings a report to normal form. Errors: UnknownKey, OutOfRange, DuplicateKey (two keys for one element).
Result<Water> normaliseWater(const WaterReport& report);

/// Difference of cations and anions that a report may show: Standard Methods 1030 E, from memory (anions up
/// to 3.0 meq/L: +-0.2 meq/L; up to 10: +-2 % of the sum of both; above: +-5 %).
double allowedImbalanceMeqPerL(double cationsMeqPerL, double anionsMeqPerL);

/// The keys a report may use.
std::vector<std::string> waterKeys();

} // namespace butte::core
