#include "dose/doser.h"

#include "base/decimal.h"

#include <numeric>

namespace butte::core {
namespace {

Problem outOfRange(const char* where, double value, const char* right) {
  return problemAt(ProblemCode::OutOfRange, where, {decimalText(value), right});
}

} // namespace

Result<PumpDuty> pumpDuty(const DosingPump& pump, Volume feedPerHour, double factor) {
  if (!(feedPerHour >= Volume{})) return outOfRange("feed_per_hour", feedPerHour.litres(), "0 or more");
  if (!(factor > 0)) return outOfRange("factor", factor, "above 0");
  if (!(pump.perRun > Volume{})) return outOfRange("per_run", pump.perRun.millilitres(), "above 0 mL");
  PumpDuty duty;
  duty.drawnPerHour = feedPerHour / factor;
  duty.runsPerHour = duty.drawnPerHour / pump.perRun;
  if (pump.perMinute > Volume{}) duty.secondsPerHour = duty.drawnPerHour / pump.perMinute * 60;
  return duty;
}

std::vector<double> drawsOfEqualRuns(const std::vector<DosingPump>& pumps) {
  std::vector<double> out;
  for (const auto& pump : pumps)
    out.push_back(pump.perRun / pumps.front().perRun);
  return out;
}

std::vector<double> dosesInSeries(const std::vector<double>& settings) {
  std::vector<double> doses(settings.size());
  double behind = 1; // litres of finished feed per litre that leaves this injector
  for (std::size_t i = settings.size(); i-- > 0;) {
    behind *= 1 + settings[i] / 1000;
    doses[i] = settings[i] / behind;
  }
  return doses;
}

Result<std::vector<double>> settingsInSeries(const std::vector<double>& doses) {
  std::vector<double> settings(doses.size());
  const double all = std::accumulate(doses.begin(), doses.end(), 0.0);
  if (!(all < 1000)) return outOfRange("doses", all, "below 1000 mL per litre together");
  double through = 1; // of a litre of finished feed, what flows into this injector
  for (std::size_t i = doses.size(); i-- > 0;) {
    through -= doses[i] / 1000;
    settings[i] = doses[i] / through;
  }
  return settings;
}

Result<double> factorFromDraw(Volume drawn, Volume feed) {
  if (!(drawn > Volume{})) return outOfRange("drawn", drawn.litres(), "above 0");
  if (!(feed > drawn)) return outOfRange("feed", feed.litres(), "more than what was drawn");
  return feed / drawn;
}

} // namespace butte::core
