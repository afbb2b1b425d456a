#pragma once
#include "book/tank_line.h"

#include <string>
#include <string_view>
#include <vector>

namespace butte::book {

/// A vessel's log as a CSV table (docs/formats/tank_log.md, "From the window"): a row for each line, further
/// rows under the same number for what was weighed in or found.
std::string logTable(const std::vector<TankLine>& lines);

/// The same back, for this vessel. Errors name row and column: "row 4, volume".
core::Result<std::vector<TankLine>> readLogTable(std::string_view csv, const std::string& vesselUid);

} // namespace butte::book
