#pragma once
#include "tank/tank_filter.h"

#include <vector>

namespace butte::core {

/// A tank as its log begins.
struct TankStart {
  ReservoirContent content;
  double relativeSd = 0.03; ///< of what it was filled with
  TankPriors priors;
};

/// How well readings were foretold: over those that fitted and those that did not.
struct ForecastScore {
  int readings = 0, within = 0; ///< within the nine-in-ten band
  double meanAbsError = 0;      ///< of the forecast, in the reading's own unit
  double meanAbsCarried = 0;    ///< of one that carries the last reading forward
};

/// A tank's log read from its start.
struct TankHistory {
  std::vector<TankEstimate> estimates; ///< after each entry; and at each whole day between
  std::vector<ReadingCheck> checks;
  TankFilter now; ///< after the last entry
  ForecastScore conductivity, ph, level;
};

/// Goes through the log (in order of its days; entries before day 0 are taken at day 0). `everyDay` adds an
/// estimate at each whole day without an entry.
TankHistory historyOf(const TankStart& start, const std::vector<TankEntry>& log, bool everyDay);

} // namespace butte::core
