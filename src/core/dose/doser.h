#pragma once
#include "base/result.h"
#include "units/quantity.h"

#include <vector>

namespace butte::core {

/// A dosing pump, as calibrated: what it gives in a run, or in a minute.
struct DosingPump {
  Volume perRun = Volume::fromMillilitres(10);
  Volume perMinute; ///< 0: it is known by its runs only
};

/// How a pump must work for a flow of feed.
struct PumpDuty {
  double runsPerHour = 0;
  double secondsPerHour = 0; ///< 0 where the pump is known by its runs only
  Volume drawnPerHour;
};

/// `feedPerHour` of finished feed at 1:`factor`. Errors: OutOfRange ("feed_per_hour", "per_run").
Result<PumpDuty> pumpDuty(const DosingPump& pump, Volume feedPerHour, double factor);

/// What two pumps that are run alike give of their due, each with its own calibration: 1 for the one that the
/// setting was made for.
std::vector<double> drawsOfEqualRuns(const std::vector<DosingPump>& pumps);

/// Injectors one behind the other, each set to parts of stock per part of what flows into it: what stands of
/// each stock in the finished feed, mL per litre. Later ones thin what earlier ones gave.
std::vector<double> dosesInSeries(const std::vector<double>& settingsMlPerLitre);
/// The settings that bring these doses into the finished feed. Error: OutOfRange where the stocks would be
/// the whole feed.
Result<std::vector<double>> settingsInSeries(const std::vector<double>& dosesMlPerLitre);

/// An injector's true factor from what it drew while so much feed was made. Errors: OutOfRange ("drawn",
/// "feed").
Result<double> factorFromDraw(Volume drawn, Volume feed);

} // namespace butte::core
