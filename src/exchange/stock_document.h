#pragma once
#include "dose/doser.h"
#include "dose/reading_line.h"
#include "dose/vessel.h"
#include "json_reader.h"
#include "stock/dissolving.h"
#include "stock/stock.h"
#include "water/water_plan.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::exchange {

/// What the window needs of a tank beside the core's view of it.
struct DocumentTank {
  std::string madeWith; ///< "pure", "blend" or "part:0", "part:1" ...
  std::optional<core::Vessel> vessel;
};

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
struct DocumentReservoir {
  core::Volume volume = core::Volume::fromLitres(100);
  core::Volume present, lastWater;
  std::optional<core::Conductivity> reading, target;        ///< no target: the formula's own EC
  bool cautious = true, withAcid = true, byReadings = true; ///< byReadings: stocks as strong as readings say
};

/// All that a formula says of dosing (docs/formats/formula.md). What is missing has the usual figure.
struct DosingDocument {
  DosingDevice device = DosingDevice::Injector;
  std::optional<core::Volume> feedPerDay, feedPerHour;
  double fillDays = 7, seasonDays = 120;          ///< common practice: stocks are mixed weekly
  std::string mixedOn;                            ///< ISO date; empty: not said
  std::vector<core::DosingPump> pumps;            ///< per tank, where typed
  std::vector<std::optional<core::Volume>> drawn; ///< per tank: what was drawn from it, by its level
  std::optional<core::Volume> drawnFeed;          ///< feed made meanwhile
  std::vector<double> ofPlan;                 ///< per tank: the salts in it over the planned; 1 as planned
  std::optional<core::Conductivity> setpoint; ///< none: the formula's own EC
  DocumentReservoir reservoir;
  std::vector<core::DosedReading> readings; ///< x: mL per litre of each
  core::DissolvingPlan dissolving;
  std::optional<core::Volume> lineFor; ///< a volume whose mark is sought in every vessel
  std::string besideUid;               ///< another formula of the book whose tanks stand beside these
};

/// Reads `stock`. `water`: what the formula's water comes to, for tanks that are made up with it.
core::StockPlan readStockDocument(const Json& stock, const std::string& path,
                                  const core::WaterPlanAnswer& water, std::vector<DocumentTank>& tanks,
                                  std::optional<core::Problem>& problem);

/// `use` of a tank and `shape` of a vessel, in files as in scripts; missing: salts, round.
core::TankUse readTankUse(ObjectReader& tank);
core::VesselShape readVesselShape(ObjectReader& vessel);

/// Reads `dosing`.
DosingDocument readDosingDocument(const Json& dosing, const std::string& path, std::size_t tankCount,
                                  std::optional<core::Problem>& problem);

inline constexpr std::size_t mostTanks = 8;

} // namespace butte::exchange
