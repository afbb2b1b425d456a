#pragma once
#include "base/csv.h"
#include "base/result.h"
#include "text/figure_text.h"

#include <string>
#include <string_view>
#include <vector>

namespace butte::reading {

/// A table as another program or another hand wrote it, before anything is known of what its columns hold.
struct ForeignTable {
  char delimiter = ',';
  DecimalMark mark = DecimalMark::Unknown; ///< as its cells show it
  bool markUnclear = false;                ///< "1,250" stands there and nothing says what the comma is
  std::vector<core::CsvRow> before;        ///< what stands above the heading
  std::vector<std::string> header;         ///< as it stands, blanks trimmed
  std::vector<std::string> units;          ///< a row of units right below it; empty where there is none
  std::vector<core::CsvRow> rows;          ///< cells trimmed; never longer than the header

  /// What names this layout: the header's words, folded.
  std::string layout() const;
};

/// Reads a file of delimited text, or what a spreadsheet puts on the clipboard: UTF-8, UTF-16 or
/// Windows-1252; cells parted by comma, semicolon, tab or bar, whichever parts the most lines alike; lines
/// above the heading and a row of units below it told apart; a table whose names go down instead of across is
/// turned. Problems: BadFile (no text, empty, or longer than 200,000 rows).
core::Result<ForeignTable> readForeignTable(std::string_view bytes);

} // namespace butte::reading
