#include "document/water_names.h"

#include "wording/tr.h"

#include <QString>

namespace butte::app {
namespace {

QString nameByContent(const core::TypedReport& report) {
  if (report.estimateTheRest) return tr("Unknown tap");
  return report.rows.empty() && !report.conductivityMsPerCm ? tr("Pure water") : tr("Own water");
}

} // namespace

void nameUnnamedWaters(exchange::WaterDocument& water) {
  for (std::size_t i = 0; i < water.sources.size(); ++i) {
    auto& name = water.sources[i].name;
    if (name.empty()) name = nameByContent(water.plan.parts[i].report).toStdString();
  }
  if (!water.name.empty() || water.sources.empty()) return;
  water.name = water.sources.size() == 1 ? water.sources.front().name : tr("Blend").toStdString();
}

} // namespace butte::app
