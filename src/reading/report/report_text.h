#pragma once
#include "water/examine.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::reading {

/// Why a figure of a report was not taken.
enum class WhyUnplaced {
  UnknownName,
  Formula,       ///< a spreadsheet's formula or its failure: the figure itself is not in the text
  NoFigure,      ///< a known name with a text that is neither a figure nor "not measured"
  Twice,         ///< there is one already, and it says something else
  BadUnit,       ///< a unit that this thing can't have, or a figure out of its range
  UnclearName,   ///< the name may mean several things: `couldBe`
  UnclearNumber, ///< "1,250" may be 1250 or 1.25: `couldBe`
  WhichFigure,   ///< several figures stand there and nothing says which is the result: `couldBe`
  NotNeeded,     ///< known, and nothing that a feed asks for
  Blurred,       ///< of a picture: its readings differ, or only one has it: `couldBe`
};

/// Where something stands on a page of a picture: in its dots, the top left corner is 0, 0.
struct PageRoom {
  std::size_t page = 0;
  double left = 0, top = 0, right = 0, bottom = 0;
};

/// Where something stands in the text: bytes of the UTF-8 text that was read, and its line.
struct Place {
  int line = 0; ///< from 1
  std::size_t from = 0, to = 0;
  std::optional<PageRoom> room = {}; ///< of a picture, where only another of its readings has it
};

/// What a report says that could not be placed.
struct UnplacedRow {
  Place place;
  std::string name, value, unit;
  WhyUnplaced why = WhyUnplaced::UnknownName;
  std::vector<core::ReportRow> couldBe; ///< the likeliest first
};

/// A figure that was read, and where it stands.
struct ReadRow {
  Place place;
  std::string name;        ///< as the paper has it
  core::ReportRow row;     ///< its key may be "EC" (mS/cm), "pH" or "temperature" (C) too
  bool unitStated = false; ///< in its row, its heading or for all; else it is the usual one
};

/// A known name with its unit, and nothing that could be its figure: an empty cell, or a figure that a
/// picture's reader did not see.
struct BareName {
  Place place;
  std::string name, key, unit;
};

/// What was understood of a paper.
struct ReportText {
  core::TypedReport report;
  std::vector<ReadRow> read; ///< in the order of the paper; all that is in `report`
  std::vector<UnplacedRow> unplaced;
  std::vector<BareName> bare; ///< of a text: cells left empty. Of a picture they ask, among `unplaced`
};

/// Reads a water report from text as a laboratory, a supplier or a spreadsheet gives it. The table is found
/// first, by its heading and by what its columns hold (names, symbols, results, units, limits, flags,
/// methods, dates, a second unit; side by side; names across the top), then its rows are read; without a
/// heading a row says it itself ("Nitrate (as NO3) 22 mg/l", "62 mg/L sulfate"). Names, forms and units are
/// those of data/reading_words.csv. A unit that is stated nowhere is mg/L (mS/cm for EC). Text in UTF-16 or
/// Windows-1252 is read too. Nothing is dropped in silence: what is not clear is listed with what it could
/// be, and never guessed.
ReportText readReportText(std::string_view text);

/// The key for a name as a report writes it ("Sulphate", "NO3-N"); empty when it is not known.
std::string reportKeyFor(std::string_view name);

} // namespace butte::reading
