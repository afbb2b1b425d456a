#pragma once
#include "table/dates.h"
#include "table/fields.h"
#include "table/foreign_table.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::reading {

/// What one column of a foreign table is taken for.
struct ColumnMeaning {
  std::string field; ///< Field::column; empty: passed over
  std::string unit;  ///< in which its figures stand; of a price: for how much
  double per = 1;    ///< so many of the unit: a price for 25 kg
  bool sure = true;  ///< false: a guess, to be looked at
  bool operator==(const ColumnMeaning&) const = default;
};

/// What a foreign table is taken for. The whole of what a person can answer about its layout.
struct TableMapping {
  TableOf table = TableOf::Products;
  std::vector<ColumnMeaning> columns; ///< parallel to the header
  DateOrder dates = DateOrder::Unknown;
  DecimalMark mark = DecimalMark::Unknown;
  std::string nameForAll; ///< the vessel, water or target of all rows, where no column names it
  bool operator==(const TableMapping&) const = default;
};

/// What a mapping leaves open. A table with a question is not taken.
enum class MappingQuestion {
  NoName,        ///< no column names the things, and no name for all is given
  NothingToTake, ///< no column has anything of such a table
  DayOrMonth,    ///< 3/4/2026
  WhatComma,     ///< "1,250"
  NoDate,        ///< rows of such a table have a date
  BagNotKnown,   ///< a price for a bag, and no column says how much a bag holds
  PriceForWhat,  ///< nothing says for how much a price is
};

/// A mapping as the header, the row of units and the cells propose it. `wanted`: for this sort of table;
/// else for the one that most columns speak for. Columns that are named as the farm's own tables name them
/// are sure; what is taken from the order of things only is not.
TableMapping proposedMapping(const ForeignTable& table, std::optional<TableOf> wanted = {});

std::vector<MappingQuestion> openQuestions(const ForeignTable& table, const TableMapping& mapping);

/// Whether the table is one of ours: named and written as the farm's own tables are, so nothing need be
/// asked.
bool isOwnTable(const ForeignTable& table, const TableMapping& mapping);

} // namespace butte::reading
