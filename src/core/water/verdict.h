#pragma once
#include "target/target.h"
#include "water/water.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// Whether what drains is used again.
enum class GrowingSystem { Open, Recirculating };

/// What the water meets.
struct WaterUse {
  GrowingSystem system = GrowingSystem::Open;
  bool onLeaves = false; ///< given overhead: sprinklers, booms, mist
  std::string crop;      ///< "" for any
};

enum class VerdictLevel { Fine, Watch, TooHigh, NotMeasured };

/// One row of data/water_limits.csv.
struct WaterLimit {
  std::string property, unit, system, use, crop;
  double fineBelow = 0, tooHighAbove = 0;
  std::string why, whatToDo, note, source, confidence;
};
const std::vector<WaterLimit>& waterLimits();

/// What one figure of a water is good for.
struct Verdict {
  std::string property; ///< "Na", "alkalinity_as_CaCO3", "EC", "SAR" ...
  std::string unit;
  std::optional<double> value;
  double plusMinus = 0; ///< of a guessed figure, or one below detection
  VerdictLevel level{};
  VerdictLevel atWorst{}; ///< at the upper end of an estimated figure
  std::optional<double>
      targetMgPerL;                  ///< the crop's own, of the element, where the water alone goes beyond it
  const WaterLimit* limit = nullptr; ///< the published row that was used
};

/// Judges a water for its use and a target's rows: the worst first, then by the order of the limits. Where a
/// target wants the element, the target is the true limit in an open system. What wets leaves is judged for
/// them too, beside the roots: a property can stand twice, told apart by its limit's `use`.
std::vector<Verdict> verdictsOn(const Water& water, const WaterUse& use,
                                const std::vector<TargetRow>& target);

/// Sodium adsorption ratio, (meq/L)^0.5: Na / sqrt((Ca + Mg) / 2) (FAO Irrigation and Drainage Paper 29, from
/// memory). Nothing without calcium and magnesium.
std::optional<double> sodiumAdsorptionRatio(const Water& water);

} // namespace butte::core
