#pragma once
#include "base/result.h"
#include "units/quantity.h"

#include <vector>

namespace butte::core {

/// What a meter read at a dose. `x` is the dose in mL per litre, or the rise that was expected in mS/cm: the
/// line then keeps the bend of the expected curve.
struct DosedReading {
  double x = 0;
  Conductivity reading;
};

/// A straight line through readings: least squares.
struct ReadingLine {
  Conductivity base;      ///< at no dose
  double slope = 0;       ///< mS/cm per unit of x
  Conductivity plusMinus; ///< of one reading about the line; 0 with two readings
};

/// Errors: TooFewReadings below two; NotDeterminable where all stand at one dose.
Result<ReadingLine> fitReadings(const std::vector<DosedReading>& readings);

} // namespace butte::core
