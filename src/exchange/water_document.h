#pragma once
#include "formula/acid_plan.h"
#include "water/verdict.h"
#include "water/water_plan.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::exchange {

/// What the window needs of a source beside the core's view of it.
struct DocumentSource {
  std::string name;
  std::string uid;    ///< of the water in the book that it was taken from; empty: typed here
  std::string report; ///< date of the report that was taken, or "worst"
};

/// A formula's water: one source or several, how they are treated and blended.
struct WaterDocument {
  std::string name;
  std::vector<DocumentSource> sources; ///< parallel to plan.parts
  core::WaterPlan plan;
  std::string acidFirstId; ///< catalogue id; empty: none
  core::GrowingSystem system = core::GrowingSystem::Open;
  bool onLeaves = false; ///< given overhead
  std::optional<core::OwnTitration> titration;
};

} // namespace butte::exchange
