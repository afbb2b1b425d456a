#pragma once
#include "json_reader.h"
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

/// Reads `target` of a formula (docs/formats/formula.md). Problems go to the sink, with their place.
TargetDocument readTargetDocument(const Json& target, const std::string& path,
                                  std::optional<core::Problem>& problem);

/// Units that a target's row may be typed in: mg/L, mmol/L, meq/L.
const std::vector<std::string>& targetUnits();
/// mg/L of an element from a figure in one of these; nothing for another unit.
std::optional<double> targetMilligramsPerLitre(core::Nutrient nutrient, double value,
                                               const std::string& unit);
/// The same figure in another unit.
double targetIn(core::Nutrient nutrient, double milligramsPerLitre, const std::string& unit);

/// A row's digits and unit as typed: `mg_per_l`, or `amount` with `unit`.
std::pair<std::string, std::string> typedFigure(const Json& row);
/// Writes digits and unit into a row, in the plain form for mg/L.
void setTypedFigure(Json& row, const std::string& digits, const std::string& unit);
/// mg/L of a stored row; nothing where it is not a good one.
std::optional<double> rowMilligramsPerLitre(const Json& row);

} // namespace butte::exchange
