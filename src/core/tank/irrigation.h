#pragma once
#include "units/quantity.h"

#include <optional>
#include <vector>

namespace butte::core {

/// A day's watering of plants whose drain runs off: how much in all, in how many turns.
struct IrrigationRequest {
  double drunkLPerDay = 0;             ///< by all of the plants
  double drainShare = 0.3;             ///< of what is given; 0.2 to 0.3 is common practice
  Volume shot;                         ///< given at once, to all of them
  double firstHour = 8, lastHour = 16; ///< of the day: the first and the last turn begin then
};

struct IrrigationPlan {
  double givenLPerDay = 0;
  Volume each;                    ///< of a turn: no more than the shot that was asked for
  std::vector<double> startHours; ///< of the day
};

/// More turns no valve makes in a day: one each five minutes (common practice).
inline constexpr std::size_t mostIrrigationTurns = 288;

/// given = drunk / (1 - drain share), in turns as large as the shot or a little less, evenly spread. Nothing
/// where a figure can't be: nothing is drunk, all of it would drain, no shot, hours out of 0 to 24 or the
/// wrong way round, or more than mostIrrigationTurns.
std::optional<IrrigationPlan> irrigationPlan(const IrrigationRequest& request);

} // namespace butte::core
