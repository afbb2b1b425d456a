#include "base/csv.h"

#include "base/decimal.h"

#include <algorithm>
#include <cassert>

namespace butte::core {
namespace {

std::vector<std::vector<std::string>> parseRows(std::string_view text) {
  std::vector<std::vector<std::string>> rows;
  std::vector<std::string> row;
  std::string field;
  bool quoted = false;
  const auto endRow = [&] {
    row.push_back(std::move(field));
    field.clear();
    if (row.size() > 1 || !row.front().empty()) rows.push_back(std::move(row));
    row.clear();
  };
  for (std::size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (quoted) {
      if (c != '"') {
        field += c;
      } else if (i + 1 < text.size() && text[i + 1] == '"') {
        field += '"';
        ++i;
      } else {
        quoted = false;
      }
    } else if (c == '"') {
      quoted = true;
    } else if (c == ',') {
      row.push_back(std::move(field));
      field.clear();
    } else if (c == '\n') {
      endRow();
    } else if (c != '\r') {
      field += c;
    }
  }
  if (!field.empty() || !row.empty()) endRow();
  return rows;
}

} // namespace

CsvTable::CsvTable(std::string_view text) : m_rows(parseRows(text)) {
  if (m_rows.empty()) return;
  m_header = std::move(m_rows.front());
  m_rows.erase(m_rows.begin());
}

std::size_t CsvTable::columnIndex(std::string_view column) const {
  const auto it = std::find(m_header.begin(), m_header.end(), column);
  assert(it != m_header.end());
  return static_cast<std::size_t>(it - m_header.begin());
}

const std::string& CsvTable::cell(std::size_t row, std::string_view column) const {
  static const std::string nothing;
  const auto index = columnIndex(column);
  const auto& fields = m_rows.at(row);
  return index < fields.size() ? fields[index] : nothing;
}

std::optional<double> CsvTable::number(std::size_t row, std::string_view column) const {
  return parseDecimal(cell(row, column));
}

} // namespace butte::core
