#pragma once
#include "report/report_text.h"

#include <optional>

namespace butte::reading {

/// The report with what a person chose for what could not be placed: parallel to `read.unplaced`, nothing for
/// what is left out. A choice replaces what was read for the same key.
core::TypedReport withAnswers(const ReportText& read,
                              const std::vector<std::optional<core::ReportRow>>& answers);

} // namespace butte::reading
