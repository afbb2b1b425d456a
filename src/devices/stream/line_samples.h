#pragma once
#include "stream/stream_row.h"

#include <string_view>
#include <vector>

namespace butte::devices {

/// What a line says that a logger sends over a cable or the network:
///   "EC=1.62 mS/cm; pH=5.9; T:21.4"   by its words
///   "EC 1.45 mS/cm pH 5.82 21.3 C"    as pens write: "EC", "pH", "temperature"
///   "1.62,5.9,21.4"                   by place: "#1", "#2", "#3"
/// Nothing where it is none of these: such a line counts as unread.
std::vector<StreamSample> lineSamples(std::string_view line);

} // namespace butte::devices
