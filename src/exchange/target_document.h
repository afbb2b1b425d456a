#pragma once
#include "target/ratio.h"
#include "target/target.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::exchange {

/// A formula's target as it stands in a file.
struct TargetDocument {
  std::string name;
  std::vector<core::TargetRow> rows;
  std::vector<core::RatioWish> ratios;
  std::vector<core::Cap> caps;
};

/// Units that a target's row may be typed in: mg/L, mmol/L, meq/L.
const std::vector<std::string>& targetUnits();
/// mg/L of an element from a figure in one of these; nothing for another unit.
std::optional<double> targetMilligramsPerLitre(core::Nutrient nutrient, double value,
                                               const std::string& unit);
/// The same figure in another unit.
double targetIn(core::Nutrient nutrient, double milligramsPerLitre, const std::string& unit);

} // namespace butte::exchange
