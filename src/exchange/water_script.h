#pragma once
#include "report/report_text.h"
#include "water/verdict.h"
#include "water/water_plan.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::exchange {

/// The largest share of one source at which the blend keeps a limit.
struct WantedShare {
  std::size_t part = 0;
  core::BlendLimit limit; ///< alkalinity in meq/L
};

/// What `butte-cli water` is asked (docs/formats/script.md).
struct WaterScript {
  core::WaterPlan plan;
  std::vector<std::string> names; ///< parallel to plan.parts
  core::WaterUse use;
  std::vector<core::TargetRow> target;
  std::optional<WantedShare> wanted;
  std::vector<reading::UnplacedRow> unplaced; ///< of a report that came as a table
};

/// Reads the JSON object, or a laboratory's table as text. Errors name the key.
core::Result<WaterScript> readWaterScript(std::string_view text);

} // namespace butte::exchange
