#pragma once
#include "dose/doser.h"
#include "dose/reading_line.h"
#include "stock/dissolving.h"
#include "units/quantity.h"

#include <optional>
#include <string_view>
#include <vector>

namespace butte::core {

/// How the stocks get into the feed.
enum class DosingDevice {
  Injector, ///< proportional, all tanks at once
  Series,   ///< proportional injectors one behind the other
  Pumps,    ///< dosing pumps that run alike for every tank
  Setpoint, ///< a controller that doses until the meter is right
  Hand,     ///< measuring jug or syringe
};
std::string_view deviceKey(DosingDevice device);

/// A vessel of feed made up by hand.
struct Reservoir {
  Volume volume = Volume::fromLitres(100);
  Volume present, lastWater;
  std::optional<Conductivity> reading, target;              ///< no target: the formula's own EC
  bool cautious = true, withAcid = true, byReadings = true; ///< byReadings: stocks as strong as readings say
};

/// How the tanks are dosed, refilled and watched. What was not said has the usual figure.
struct DosingPlan {
  DosingDevice device = DosingDevice::Injector;
  std::optional<Volume> feedPerDay, feedPerHour;
  double fillDays = 7, seasonDays = 120;    ///< common practice: stocks are mixed weekly
  std::vector<DosingPump> pumps;            ///< per tank, where typed
  std::vector<std::optional<Volume>> drawn; ///< per tank: what was drawn from it, by its level
  std::optional<Volume> drawnFeed;          ///< feed made meanwhile
  std::vector<double> ofPlan;               ///< per tank: the salts in it over the planned; 1 as planned
  std::optional<Conductivity> setpoint;     ///< none: the formula's own EC
  Reservoir reservoir;
  std::vector<DosedReading> readings; ///< x: mL per litre of each
  DissolvingPlan dissolving;
  std::optional<Volume> lineFor; ///< a volume whose mark is sought in every vessel
};

} // namespace butte::core
