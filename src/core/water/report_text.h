#pragma once
#include "water/examine.h"

#include <string>
#include <string_view>
#include <vector>

namespace butte::core {

/// Why a figure of a pasted report was not taken.
enum class WhyUnplaced {
  UnknownName,
  Formula,  ///< a spreadsheet's formula or its failure: the figure itself is not in the text
  NoFigure, ///< a known name with a text that is neither a figure nor "not measured"
  Twice,    ///< there is one already
  BadUnit,  ///< a unit that this thing can't have, or a figure out of its range
};

/// What a pasted report says that could not be placed.
struct UnplacedRow {
  int line = 0; ///< from 1
  std::string name, value, unit;
  WhyUnplaced why = WhyUnplaced::UnknownName;
};

/// What was understood of a pasted or opened table.
struct ReportText {
  TypedReport report;
  std::vector<UnplacedRow> unplaced;
};

/// Reads a water report from text as a spreadsheet or a laboratory gives it: one line a figure (name, value,
/// unit in any order of columns, parted by tab, semicolon, comma or wide blanks), or names in one line and
/// values below. Names are known in English and in the usual neighbours' words; "Nitrate as N", "NO3-N",
/// "Calcium (mg/L)", "< 0.02" are understood; so is text in UTF-16 or Windows-1252. A unit that is not stated
/// is mg/L (mS/cm for EC). Nothing is dropped in silence: a figure without a known name, a formula in a
/// figure's place, a second figure for one key are listed as unplaced. "n.d.", "-" and the like are not
/// measured.
ReportText readReportText(std::string_view text);

/// The key for a name as a report writes it ("Sulphate", "NO3-N"); empty when it is not known.
std::string reportKeyFor(std::string_view name);
/// The unit for a text as a report writes it ("mg/l", "ppm", "°dH"); empty when it is not known.
std::string reportUnitFor(std::string_view text);

} // namespace butte::core
