#include "report/answers.h"

#include "units/convert.h"

#include <algorithm>

namespace butte::reading {
namespace {

/// What a meter read stands apart from the rows.
bool takeMeter(core::TypedReport& report, const core::ReportRow& row) {
  if (row.key == "EC") {
    const auto value = core::convert(row.value, row.unit.empty() ? "mS/cm" : row.unit, "mS/cm");
    if (value) report.conductivityMsPerCm = *value;
    return true;
  }
  if (row.key == "pH") report.ph = row.value;
  if (row.key == "temperature") report.temperatureCelsius = row.value;
  return row.key == "pH" || row.key == "temperature";
}

} // namespace

core::TypedReport withAnswers(const ReportText& read,
                              const std::vector<std::optional<core::ReportRow>>& answers) {
  auto out = read.report;
  for (const auto& answer : answers) {
    if (!answer || takeMeter(out, *answer)) continue;
    std::erase_if(out.rows, [&](const auto& row) { return row.key == answer->key; });
    out.rows.push_back(*answer);
  }
  return out;
}

} // namespace butte::reading
