#pragma once
#include "units/quantity.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// Why a meter may read otherwise than expected.
enum class ReadingCause {
  WithinMeter, ///< a pen reads no closer (common practice: 5 %)
  MeterScale,  ///< value: the factor between two ppm scales; the reading was taken on the other
  OneSideShut, ///< value: what the meter would read with that tank shut; tank says which
  WrongVolume, ///< value: litres that would explain it
  Undissolved, ///< value: percent of the salts that are not in solution yet
  StockOff,    ///< value: strength of the stocks over the planned
  OtherWater,  ///< value: EC of the water that would explain it, mS/cm
  Temperature, ///< value: degrees from 25 at a pen that does not correct for it (2 % per kelvin)
};

struct PossibleCause {
  ReadingCause cause{};
  double value = 0;
  std::size_t tank = 0;    ///< OneSideShut only
  double unlikeliness = 0; ///< the size it would need over the size it usually has; the list is sorted by it
};

/// What is compared.
struct ReadingGap {
  Conductivity expected, read, water;
  std::optional<Volume> volume;           ///< of the vessel, where there is one
  std::vector<Conductivity> withTankShut; ///< per tank; empty for a hand-dosed vessel
};

/// Likely causes of a reading, the likeliest first: each with the size that it alone would need. Usual sizes
/// are common practice: volume 10 %, undissolved 9 %, stock 8 %, water 0.1 mS/cm, temperature 4 K; a shut
/// side and a scale mix-up are as likely as the reading is near what they would give.
std::vector<PossibleCause> causesOf(const ReadingGap& gap);

} // namespace butte::core
