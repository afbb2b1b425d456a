#pragma once
#include "stream/stream_row.h"

#include <cstdint>
#include <optional>

namespace butte::app {

/// A logged time as seconds since 1970 UTC; of the clock on the wall by this computer's zone. The hour that
/// comes twice in autumn is told by `previous`, the row before: a logger's rows go forward. What was not said
/// is `now`.
std::int64_t secondsOf(const devices::LoggedTime& at, std::int64_t now,
                       const std::optional<std::int64_t>& previous);

} // namespace butte::app
