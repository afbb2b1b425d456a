#pragma once
#include "dose/reading_causes.h"
#include "dose/reading_line.h"
#include "stock/delivered_feed.h"

#include <optional>
#include <vector>

namespace butte::core {

/// What a grower's meter said of the feed, held against the formula.
struct ReadingDiagnosis {
  std::vector<Conductivity> expected; ///< parallel to the readings
  std::optional<ReadingLine> line;    ///< through the readings, by dose; nothing where they do not tell it
  std::optional<ReadingLine> curve;   ///< by the rise that was expected: its slope is the stocks' strength
  ReadingGap lastGap;                 ///< of the last reading
  std::vector<PossibleCause> causes;  ///< of that gap, the likeliest first
  /// How strong the stocks are over the planned; nothing without two readings that tell it, or where they
  /// make no sense: then it is another stock, or a slip of the pen.
  std::optional<double> stockStrength;
};

/// The meter's expected reading with so many mL of each stock (at the plan's factor) in a litre.
Conductivity expectedReading(const Delivery& delivery, const StockAnswer& stock, double mlPerLitre);

/// Nothing without readings. `vessel`: of what was read.
std::optional<ReadingDiagnosis> diagnosed(const std::vector<DosedReading>& readings, const Delivery& delivery,
                                          const StockAnswer& stock, Conductivity water, Volume vessel);

} // namespace butte::core
