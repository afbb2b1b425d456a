#pragma once
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::core {

/// One record of a CSV text and the line (from 1) on which it begins.
struct CsvRow {
  int line = 0;
  std::vector<std::string> cells;
};

/// The records of a CSV text (RFC 4180: quoted fields, doubled quotes, line breaks inside quotes; LF, CRLF or
/// CR end a line). Empty lines are left out. A quote that is never closed ends with the text.
std::vector<CsvRow> parseCsv(std::string_view text, char delimiter = ',');

/// A cell as it must stand in a file: quoted where it holds the delimiter, a quote or a line break.
std::string csvCell(std::string_view text, char delimiter = ',');

/// Text that a spreadsheet would take for a formula (it begins with = + - @, a tab or a carriage return,
/// after any number of apostrophes) with an apostrophe before it; other text as it is. For cells of text
/// alone: -5 as a number stays one.
std::string harmlessText(const std::string& text);
/// The text that was made harmless.
std::string textAsItWas(const std::string& cell);

/// A CSV table (RFC 4180: quoted fields, doubled quotes, line breaks inside quotes) with a header line.
class CsvTable {
public:
  explicit CsvTable(std::string_view text);

  std::size_t rowCount() const { return m_rows.size(); }
  /// The cell's text; empty when the row is short. The column must exist.
  const std::string& cell(std::size_t row, std::string_view column) const;
  /// The cell as a number with a decimal point; nothing when the cell is empty or no number.
  std::optional<double> number(std::size_t row, std::string_view column) const;

private:
  std::size_t columnIndex(std::string_view column) const;
  std::vector<std::string> m_header;
  std::vector<std::vector<std::string>> m_rows;
};

} // namespace butte::core
