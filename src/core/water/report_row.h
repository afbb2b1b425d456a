#pragma once
#include "base/result.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::core {

/// One row of a water report as it was typed.
struct ReportRow {
  std::string key; ///< what is stated and in which form: "NO3", "N_NO3", "alkalinity_as_CaCO3" (waterKeys())
  double value = 0;
  std::string unit = "mg/L"; ///< one of reportUnits()
  bool below = false;        ///< "< value": less than the laboratory can see
  bool operator==(const ReportRow&) const = default;
};

/// Units that a row may be stated in, the usual one first. Hardness units count equivalents for any ion
/// ("calcium as CaCO3").
const std::vector<std::string>& reportUnits();

/// The row's figure in mg/L of what its key says. Errors: UnknownKey, UnknownUnit, NoCharge (boron has no
/// meq/L).
Result<double> milligramsPerLitre(const ReportRow& row);

/// mg of what the key says in one mmol; nothing for a key without a formula (dissolved solids).
std::optional<double> milligramsPerMillimole(std::string_view key);
/// Charges that count for meq/L; 0 for what has none.
int reportCharge(std::string_view key);

} // namespace butte::core
