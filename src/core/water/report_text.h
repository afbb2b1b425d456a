#pragma once
#include "water/examine.h"

#include <string>
#include <string_view>
#include <vector>

namespace butte::core {

/// A line of a pasted report that holds a figure but could not be placed.
struct UnplacedRow {
  int line = 0; ///< from 1
  std::string name, value, unit;
};

/// What was understood of a pasted or opened table.
struct ReportText {
  TypedReport report;
  std::vector<UnplacedRow> unplaced;
};

/// Reads a water report from text as a spreadsheet or a laboratory gives it: one line a figure (name, value,
/// unit in any order of columns, parted by tab, semicolon, comma or wide blanks), or names in one line and
/// values below. Names are known in English and in the usual neighbours' words; "Nitrate as N", "NO3-N",
/// "Calcium (mg/L)", "< 0.02" are understood. A unit that is not stated is mg/L (mS/cm for EC). What has a
/// figure and no known name is listed as unplaced; a second figure for one key likewise.
ReportText readReportText(std::string_view text);

/// The key for a name as a report writes it ("Sulphate", "NO3-N"); empty when it is not known.
std::string reportKeyFor(std::string_view name);
/// The unit for a text as a report writes it ("mg/l", "ppm", "°dH"); empty when it is not known.
std::string reportUnitFor(std::string_view text);

} // namespace butte::core
