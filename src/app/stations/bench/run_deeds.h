#pragma once
#include "run/run_event.h"

#include <optional>

namespace butte::app {

class BenchEdits;

/// What the one large button tells where nothing has to be measured for it; `typed`: how much water it was,
/// where that is not as asked. Nothing where a hand has to say more.
std::optional<core::RunDeed> plainDeed(const BenchEdits& run, std::optional<core::Volume> typed);

/// What the spoons hold that the step in hand is measured with; nothing where it is weighed.
std::optional<core::Mass> massBySpoons(const BenchEdits& run);

} // namespace butte::app
