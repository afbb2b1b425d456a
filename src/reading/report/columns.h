#pragma once
#include "report/line_items.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::reading {

/// A column as its heading says.
struct Column {
  Role role = Role::Unknown;
  std::string unit; ///< "Result (mg/L)"
  std::vector<std::string> form;
  std::optional<Analyte> analyte; ///< where names stand in one line and their figures below
  std::string text;
  std::size_t cell = 0;
  int left = 0, right = 0;
  int year = 0; ///< "2025" above a column
};

/// The line that says what the columns hold.
struct Heading {
  std::vector<Column> columns;
  Parting parting = Parting::Blanks;
  bool acrossTop = false; ///< names in this line, their figures below
};

/// "Parameter | Result | Unit", or "Ca | Mg | Na"; nothing where the line is no heading.
std::optional<Heading> headingOf(const Line& line);

/// For each item of a line the column under which it stands, if any: by cell, by place, or by what it is,
/// never crossing.
std::vector<std::optional<std::size_t>> columnsOf(const Line& line, const Heading& heading);

/// The names of a line as one ("Nitrate | NO3-N"), where they are.
std::optional<Analyte> joinedName(const Line& line, const std::vector<const Item*>& names);

} // namespace butte::reading
