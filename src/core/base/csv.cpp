#include "base/csv.h"

#include "base/decimal.h"

#include <algorithm>
#include <cassert>

namespace butte::core {
namespace {

class CsvParser {
public:
  explicit CsvParser(char delimiter) : m_delimiter(delimiter) {}

  std::vector<CsvRow> parse(std::string_view text) {
    for (std::size_t i = 0; i < text.size(); ++i) {
      const char c = text[i];
      const char next = i + 1 < text.size() ? text[i + 1] : '\0';
      const bool lineEnd = c == '\n' || (c == '\r' && next != '\n');
      if (m_quoted && c == '"' && next == '"') {
        m_field += c;
        ++i;
      } else if (c == '"' && (m_quoted || m_field.empty())) {
        m_quoted = !m_quoted;
      } else if (m_quoted) {
        m_field += c;
      } else if (c == m_delimiter) {
        m_row.cells.push_back(std::move(m_field));
        m_field.clear();
      } else if (lineEnd) {
        endRow();
      } else if (c != '\r') {
        m_field += c;
      }
      if (lineEnd) ++m_line;
      if (m_row.line == 0 && (!m_field.empty() || !m_row.cells.empty() || m_quoted)) m_row.line = m_line;
    }
    endRow();
    return std::move(m_rows);
  }

private:
  void endRow() {
    m_row.cells.push_back(std::move(m_field));
    m_field.clear();
    if (m_row.cells.size() > 1 || !m_row.cells.front().empty()) {
      if (m_row.line == 0) m_row.line = m_line;
      m_rows.push_back(std::move(m_row));
    }
    m_row = {};
  }

  char m_delimiter;
  bool m_quoted = false;
  int m_line = 1;
  std::string m_field;
  CsvRow m_row;
  std::vector<CsvRow> m_rows;
};

} // namespace

std::vector<CsvRow> parseCsv(std::string_view text, char delimiter) {
  return CsvParser(delimiter).parse(text);
}

std::string csvCell(std::string_view text, char delimiter) {
  if (text.find_first_of(std::string("\"\r\n") + delimiter) == std::string_view::npos)
    return std::string(text);
  std::string out = "\"";
  for (const char c : text) {
    out += c;
    if (c == '"') out += c;
  }
  return out + "\"";
}

namespace {

bool looksLikeFormula(const std::string& text) {
  const auto first = text.find_first_not_of('\'');
  return first != std::string::npos &&
         std::string_view("=+-@\t\r").find(text[first]) != std::string_view::npos;
}

} // namespace

std::string harmlessText(const std::string& text) {
  return looksLikeFormula(text) ? "'" + text : text;
}

std::string textAsItWas(const std::string& cell) {
  return cell.starts_with('\'') && looksLikeFormula(cell) ? cell.substr(1) : cell;
}

CsvTable::CsvTable(std::string_view text) {
  for (auto& row : parseCsv(text))
    m_rows.push_back(std::move(row.cells));
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
