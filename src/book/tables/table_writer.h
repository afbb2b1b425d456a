#pragma once
#include "base/csv.h"
#include "book/record.h"
#include "measures.h"

#include <QSaveFile>
#include <initializer_list>
#include <optional>
#include <string>
#include <vector>

namespace butte::book {

/// A CSV table on its way into a file, cell by cell. With a decimal comma cells are parted by ';'.
class TableWriter {
public:
  TableWriter(QSaveFile& file, bool decimalComma, const words::Measures& measures)
      : m_file(file), m_comma(decimalComma), m_delimiter(decimalComma ? ';' : ','), m_measures(measures) {}

  /// The units that masses, volumes and conductivities are written in: "EC read (ppm500)".
  const words::Measures& measures() const { return m_measures; }

  /// Names of columns, then a column "key (unit)" for each key.
  void header(std::initializer_list<std::string> first, const std::vector<std::string>& keys,
              const std::string& unit);
  void text(const std::string& text) { cell(core::harmlessText(text)); }
  void number(std::string digits);
  /// Computed or converted: six figures are more than any scale or meter gives.
  void number(const std::optional<double>& value);
  /// Ends the row; false when the file can take no more.
  bool end();

private:
  void cell(const std::string& text);
  QSaveFile& m_file;
  bool m_comma;
  char m_delimiter;
  const words::Measures& m_measures;
  std::string m_line;
  bool m_first = true;
};

/// The value of the row with this key in a list of rows; empty where there is none.
std::string rowValue(const Json& body, const char* pointer, const char* keyName, const std::string& key,
                     const char* valueName);

} // namespace butte::book
