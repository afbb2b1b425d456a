#pragma once
#include "water/report_row.h"
#include "water/water.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// A report as it was typed.
struct TypedReport {
  std::vector<ReportRow> rows;
  std::optional<double> conductivityMsPerCm, ph, temperatureCelsius;
  /// Fill what was not measured with a guess and its range (water/estimate.h).
  bool estimateTheRest = false;
  bool operator==(const TypedReport&) const = default;
};

/// The report in normal form. Errors as milligramsPerLitre() and normaliseWater().
Result<Water> waterOf(const TypedReport& report);

/// What can't be right in a report, or is to be doubted.
enum class WaterDoubt {
  ChargeUnbalanced,      ///< figures: cations, anions, allowed difference, all in meq/L
  ConductivityDisagrees, ///< figures: read, computed, in mS/cm at 25 degC
  HardnessDisagrees,     ///< figures: stated, from Ca and Mg, in mg/L as CaCO3
  AlkalinityDisagrees,   ///< figures: stated as CaCO3, from HCO3 and CO3, in mg/L as CaCO3
  AlkalinityAgainstPh,   ///< figures: alkalinity in meq/L, pH
  SolidsDisagree,        ///< figures: stated, sum, in mg/L
  Softened,              ///< figures: hardness, sodium, in meq/L
  PhOfPureWater,         ///< figures: pH
  MagnesiumAboveCalcium, ///< figures: Mg, Ca in meq/L
};
struct DoubtFound {
  WaterDoubt doubt{};
  std::vector<double> figures;
};

/// How a report could be read so that it balances.
enum class RereadingKind {
  OtherForm, ///< the same figure, stated as something else: NO3 for NO3-N
  OtherUnit, ///< the same figure in another unit: meq/L for mg/L
  Swapped,   ///< two figures in each other's rows
  Missing,   ///< one ion that was not measured closes the gap
  Slipped,   ///< a decimal point
};
struct Rereading {
  RereadingKind kind{};
  std::string from, to;         ///< keys; for OtherUnit `to` is the unit; for Missing `from` is empty
  double value = 0;             ///< of the row as it would stand then
  std::vector<ReportRow> rows;  ///< the whole report, read that way
  double differenceMeqPerL = 0; ///< cations less anions, then
};

/// What a report says of itself.
struct Examination {
  double cationsMeqPerL = 0, anionsMeqPerL = 0, allowedMeqPerL = 0;
  std::optional<double> conductivityComputedMsPerCm; ///< of the ions, at 25 degC
  std::vector<DoubtFound> doubts;
  std::vector<Rereading> rereadings; ///< the likeliest first, a few at most; none where it balances
};

/// Checks a report against itself: charge balance (Standard Methods 1030 E), computed conductivity within 10
/// % (1030 E), hardness against Ca and Mg, alkalinity against pH, dissolved solids between 1.0 and 1.2 of the
/// sum (1030 E). All from memory. Errors as waterOf().
Result<Examination> examineReport(const TypedReport& report);

} // namespace butte::core
