#pragma once
#include "base/csv.h"
#include "book/record.h"

#include <QSaveFile>
#include <initializer_list>
#include <optional>
#include <string>
#include <vector>

namespace butte::book {

/// A CSV table on its way into a file, cell by cell. With a decimal comma cells are parted by ';'.
class TableWriter {
public:
  TableWriter(QSaveFile& file, bool decimalComma)
      : m_file(file), m_comma(decimalComma), m_delimiter(decimalComma ? ';' : ',') {}

  /// Names of columns, then a column "key (unit)" for each key.
  void header(std::initializer_list<const char*> first, const std::vector<std::string>& keys,
              const std::string& unit);
  void text(const std::string& text) { cell(core::harmlessText(text)); }
  void number(std::string digits);
  void number(const std::optional<double>& value);
  /// Ends the row; false when the file can take no more.
  bool end();

private:
  void cell(const std::string& text);
  QSaveFile& m_file;
  bool m_comma;
  char m_delimiter;
  std::string m_line;
  bool m_first = true;
};

/// The value of the row with this key in a list of rows; empty where there is none.
std::string rowValue(const Json& body, const char* pointer, const char* keyName, const std::string& key,
                     const char* valueName);

} // namespace butte::book
