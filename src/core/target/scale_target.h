#pragma once
#include "base/result.h"
#include "target/target.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// EC at 25 degC of a feed that holds exactly this target, mS/cm; ions that the target leaves open close the
/// balance (sulfate, else sodium). Nothing where the chemistry finds none.
std::optional<double> conductivityOfTarget(const std::vector<TargetRow>& rows, double alkalinityLeftMeqPerL);

/// The factor on the majors that brings the target to this EC, their ratios kept. With `tracesToo` the traces
/// follow; else they stay (growers are split: both are common practice). Errors: OutOfRange (no feed of
/// these elements has that EC), MissingKey without majors.
Result<double> factorForConductivity(const std::vector<TargetRow>& rows, double alkalinityLeftMeqPerL,
                                     double milliSiemensPerCm, bool tracesToo);

/// The target with its majors (and traces, if asked) multiplied.
std::vector<TargetRow> scaled(std::vector<TargetRow> rows, double factor, bool tracesToo);

/// What a crop is given in a season (data/crop_ranges.csv).
struct CropRange {
  std::string crop, stage, season;                    ///< season: "any", "summer", "winter"
  std::optional<double> ecLow, ecHigh, phLow, phHigh; ///< mS/cm
  std::string note, source, confidence;
};
const std::vector<CropRange>& cropRanges();

/// A named change of strength: "summer: strawberry, fruiting at EC 1.0 to 1.4".
struct SeasonRule {
  std::string name;
  double milliSiemensPerCm = 0; ///< middle of the range
  const CropRange* range = nullptr;
};
/// Rules for a crop whose name begins the same ("Strawberry, fruiting" finds strawberry), its seasons first.
std::vector<SeasonRule> seasonRules(const std::string& crop);

} // namespace butte::core
