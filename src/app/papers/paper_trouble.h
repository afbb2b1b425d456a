#pragma once
#include "scan/paper_reader.h"

#include <QString>

namespace butte::app {

/// Why a paper was not read, and what helps.
QString paperTroubleText(scan::PaperTrouble trouble);

} // namespace butte::app
