#pragma once
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace butte::reading {

/// What a table of the farm may be of.
enum class TableOf { Products, Waters, Targets, Batches, Readings };
inline constexpr int tableOfCount = 5;

/// What a cell of a column holds.
enum class FieldSort {
  Text,
  Number, ///< a bare number
  Amount, ///< a number in a unit
  Price,  ///< for an amount
  Date,   ///< a day, perhaps with its time
  Clock,  ///< the time of the day that another column names
  Key     ///< of an element, an ion or an oxide
};

/// A column that the farm's own tables have (docs/formats/tables.md).
struct Field {
  std::string column; ///< as its own tables call it, in small letters: "price (per kg)", "ca (mg/l)"
  FieldSort sort = FieldSort::Text;
  std::string unit;       ///< of an Amount, a Price or a Key in our tables
  std::string key;        ///< of a Key: "Ca"
  std::string_view words; ///< meanings of Column words that name it, parted by blanks
};

/// The columns of one sort of table, its own first.
std::span<const Field> fieldsOf(TableOf table);
const Field* fieldNamed(TableOf table, std::string_view column);
/// Units in which a column's figures may stand, its own first; empty where it has none.
std::vector<std::string> unitsOf(const Field& field);

} // namespace butte::reading
