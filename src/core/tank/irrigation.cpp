#include "tank/irrigation.h"

#include <cmath>

namespace butte::core {

std::optional<IrrigationPlan> irrigationPlan(const IrrigationRequest& request) {
  constexpr double hoursOfDay = 24;
  const bool share = request.drainShare >= 0 && request.drainShare < 1;
  const bool hours =
      request.firstHour >= 0 && request.firstHour <= request.lastHour && request.lastHour <= hoursOfDay;
  if (!(request.drunkLPerDay > 0) || !share || !hours || !(request.shot > Volume{})) return std::nullopt;
  IrrigationPlan out;
  out.givenLPerDay = request.drunkLPerDay / (1 - request.drainShare);
  // What is a whole number of shots but for rounding is that number.
  constexpr double rounding = 1e-9;
  const double turns = std::ceil(out.givenLPerDay / request.shot.litres() - rounding);
  if (!(turns <= static_cast<double>(mostIrrigationTurns))) return std::nullopt;
  const auto count = static_cast<std::size_t>(std::max(turns, 1.0));
  out.each = Volume::fromLitres(out.givenLPerDay / static_cast<double>(count));
  for (std::size_t turn = 0; turn < count; ++turn) {
    const double along = count > 1 ? static_cast<double>(turn) / static_cast<double>(count - 1) : 0;
    out.startHours.push_back(request.firstHour + along * (request.lastHour - request.firstHour));
  }
  return out;
}

} // namespace butte::core
