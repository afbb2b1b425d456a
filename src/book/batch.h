#pragma once
#include "base/result.h"
#include "formula_document.h"
#include "record.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::book {

/// One line of a batch: what the plan said and what the scale showed.
struct BatchWeight {
  std::string productId, productName, tank;
  double plannedGrams = 0;
  std::optional<exchange::Amount> actual; ///< as typed
  std::string lot;

  std::optional<double> actualGrams() const;
  /// How far the weighing is off its plan, in percent of the plan and with its sign.
  std::optional<double> deviationPercent() const;
};

/// A batch as it was mixed. The body of a Kind::Batch record is this as JSON (docs/formats/book.md).
struct Batch {
  Moment at;
  std::string formulaUid, formulaName, crop, waterName;
  int formulaVersion = 0;
  double litres = 0;
  std::optional<double> ecPlanned; ///< mS/cm at 25 degC
  std::optional<double> phPlanned;
  std::optional<exchange::Amount> ecRead;
  std::optional<std::string> phRead; ///< digits as typed
  std::string who, note;
  std::string sheet; ///< SHA-256 of the sheet as printed; empty when there was none
  std::vector<BatchWeight> weights;

  std::optional<double> ecReadMilliSiemens() const;
  /// The worst weighing, without its sign; nothing while nothing is weighed.
  std::optional<double> worstDeviationPercent() const;
};

/// Reads strictly: a Problem names the key, the value and what would be right.
core::Result<Batch> batchFromJson(const Json& json);
Json toJson(const Batch& batch);

} // namespace butte::book
