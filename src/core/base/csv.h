#pragma once
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::core {

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
