#pragma once
#include "table/mapping.h"

namespace butte::reading {

/// A table in the farm's own writing: its columns and units, decimal points, ISO dates.
struct PlainTable {
  std::vector<std::string> header; ///< Field::column
  std::vector<core::CsvRow> rows;  ///< the lines are those of the foreign table
};

/// The foreign table as a mapping has it. A cell that does not read as what its column holds stays as it
/// stands, so that whoever takes the row can say what is wrong with it. One row of a logger with several
/// quantities becomes a row for each. A batch without a number is called after its time and formula.
PlainTable plainTable(const ForeignTable& table, const TableMapping& mapping);

} // namespace butte::reading
