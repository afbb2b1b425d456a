#pragma once
#include "page/laid_out.h"
#include "report/report_text.h"

#include <span>

namespace butte::reading {

/// One water report out of several readings of its picture. A figure counts as read where at least two
/// readings have it alike, with its unit, none says otherwise, and its letters were sure; what else any of
/// them has is left open with what it could be (WhyUnplaced::Blurred, or what that reading says), and a name
/// with a unit whose figure none saw is listed too. Places are those of the first reading; what it has no
/// words for has its room on the page.
ReportText agreedReport(std::span<const LaidOut> readings);

} // namespace butte::reading
