#pragma once
#include "json_reader.h"
#include "target_document.h"

namespace butte::exchange {

/// Reads `target` of a formula (docs/formats/formula.md). Problems go to the sink, with their place.
TargetDocument readTargetDocument(const Json& target, const std::string& path,
                                  std::optional<core::Problem>& problem);

/// A row's digits and unit as typed: `mg_per_l`, or `amount` with `unit`.
std::pair<std::string, std::string> typedFigure(const Json& row);
/// Writes digits and unit into a row, in the plain form for mg/L.
void setTypedFigure(Json& row, const std::string& digits, const std::string& unit);
/// mg/L of a stored row; nothing where it is not a good one.
std::optional<double> rowMilligramsPerLitre(const Json& row);

} // namespace butte::exchange
