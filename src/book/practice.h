#pragma once
#include "base/result.h"
#include "practice/truth.h"
#include "record.h"

#include <string>
#include <vector>

namespace butte::book {

/// What makes a run a practice run: nothing of it becomes a batch (docs/formats/book.md).
struct Practice {
  std::uint64_t seed = 1; ///< of its mishaps, seedMishaps()
  std::vector<core::TrueEvent> truth;
};

/// One true event as it stands in the body's list; products by their ids, vessels by their names.
Json toJson(const core::TrueEvent& event, const core::RunPlan& names);
Json toJson(const Practice& practice, const core::RunPlan& names);
/// Reads strictly: a Problem names the key below `path`, the value and what would be right.
core::Result<Practice> practiceFromJson(const Json& json, const std::string& path,
                                        const core::RunPlan& names);

} // namespace butte::book
