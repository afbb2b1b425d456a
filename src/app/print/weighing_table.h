#pragma once
#include "bench/weigh_plan.h"

#include <QString>
#include <QStringList>
#include <vector>

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// What to weigh, in which order, on which scale, with room for what was weighed. `readings`, parallel to the
/// plan: what the meter should show after each; may be empty.
QString weighingTableHtml(const FormulaEditor& editor, const UnitsShown& units,
                          const std::vector<core::WeighStep>& plan, const QStringList& readings = {});

} // namespace butte::app
