#pragma once
#include "page/laid_out.h"
#include "report/report_text.h"

#include <span>

namespace butte::reading {

/// One water report out of several readings of its picture. A figure counts as read where at least two
/// readings have it alike, with its unit, none says otherwise, and its letters were sure; what else any of
/// them has is left open (WhyUnplaced::Blurred) with what it could be. Places are those of the first reading.
ReportText agreedReport(std::span<const LaidOut> readings);

} // namespace butte::reading
