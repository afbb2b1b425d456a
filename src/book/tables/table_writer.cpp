#include "tables/table_writer.h"

#include "base/csv.h"
#include "base/decimal.h"

#include <algorithm>

namespace butte::book {

void TableWriter::header(std::initializer_list<std::string> first, const std::vector<std::string>& keys,
                         const std::string& unit) {
  for (const auto& name : first)
    text(name);
  for (const auto& key : keys)
    text(key + " (" + unit + ")");
}

void TableWriter::number(std::string digits) {
  if (m_comma) std::replace(digits.begin(), digits.end(), '.', ',');
  cell(digits);
}

void TableWriter::number(const std::optional<double>& value) {
  number(value ? QString::number(*value, 'g', 6).toStdString() : std::string());
}

bool TableWriter::end() {
  m_line += "\r\n";
  m_file.write(m_line.data(), static_cast<qint64>(m_line.size()));
  m_line.clear();
  m_first = true;
  return m_file.error() == QFileDevice::NoError;
}

void TableWriter::cell(const std::string& text) {
  if (!m_first) m_line += m_delimiter;
  m_first = false;
  m_line += core::csvCell(text, m_delimiter);
}

std::string rowValue(const Json& body, const char* pointer, const char* keyName, const std::string& key,
                     const char* valueName) {
  const Json::json_pointer place(pointer);
  if (!body.contains(place) || !body[place].is_array()) return {};
  for (const auto& row : body[place]) {
    if (row.value(keyName, std::string()) == key) return row.value(valueName, std::string());
  }
  return {};
}

} // namespace butte::book
