#pragma once
#include "stream/logged_time.h"
#include "stream/stream_row.h"

#include <string>
#include <string_view>
#include <vector>

namespace butte::devices {

/// A table that a logger writes on and on, in whatever pieces it comes. Found by itself: the separator (`;`,
/// tab or comma), a head line, a line of units below it, the column (or the two) with the time, a head that
/// is written again after the logger started anew. Lines that begin with `#` say nothing.
class GrowingCsv {
public:
  static constexpr std::size_t longestLine = 8192, mostColumns = 256;

  struct Taken {
    std::vector<StreamRow> rows;
    std::vector<std::string> unread; ///< lines that are no row: damaged, or of another width
  };

  explicit GrowingCsv(DateOrder order) : m_order(order) {}
  /// Rows whose line has ended.
  Taken take(std::string_view bytes);
  /// The file begins anew: another one has taken its place.
  void restart();

private:
  struct Column {
    std::string key, unit;
  };
  void takeLine(std::string_view line, Taken& out);
  std::vector<std::string> cellsOf(std::string_view line) const;
  bool hasFigures(const std::vector<std::string>& cells) const;
  void takeHead(const std::vector<std::string>& cells);
  void findTime(const std::vector<std::string>& cells);
  LoggedTime timeIn(const std::vector<std::string>& cells) const;

  DateOrder m_order;
  std::string m_open;
  bool m_tooLong = false;
  char m_separator = '\0';
  std::vector<Column> m_columns;
  bool m_unitsMayFollow = false, m_timeKnown = false;
  int m_time = -1, m_timeOfDay = -1; ///< columns; -1: none
};

} // namespace butte::devices
