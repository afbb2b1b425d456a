#pragma once
#include "base/csv.h"
#include "base/result.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::book {

/// A table as text, its conventions recognised: encoding (UTF-8 with or without mark, else Windows-1252),
/// what parts the cells (comma, semicolon or tab), decimal mark.
struct TableText {
  char delimiter = ',';
  bool decimalComma = false;
  std::vector<std::string> header; ///< lower case, blanks trimmed
  std::vector<core::CsvRow> rows;

  /// The column of this name; nothing when there is none.
  std::optional<std::size_t> column(std::string_view name) const;
  std::string cell(const core::CsvRow& row, std::string_view column) const;
  /// Digits with a decimal point; nothing for a cell that is no number in this table's own writing.
  std::optional<std::string> digits(const std::string& cell) const;
};

core::Result<TableText> readTable(const std::string& bytes);

} // namespace butte::book
