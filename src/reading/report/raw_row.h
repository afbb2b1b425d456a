#pragma once
#include "report/line_items.h"
#include "report/report_text.h"

namespace butte::reading {

/// Where in a line a cell stands: which one it is, where signs part them, else its edges as a typewriter
/// counts.
struct Spot {
  std::optional<std::size_t> cell;
  int left = 0, right = 0;
};

/// One of several figures that stand in a row.
struct Candidate {
  Item::Kind kind = Item::Kind::Figure;
  Figure figure;
  std::string text;
  Place place;
  Spot spot;
};

/// A figure with its name before it is judged.
struct RawRow {
  Place place;
  std::string name, value;
  std::optional<Analyte> analyte; ///< nothing: the name is not known
  Item::Kind kind = Item::Kind::Figure;
  Figure figure;
  std::optional<Spot> spot;          ///< in a line whose cells are parted
  std::vector<Candidate> candidates; ///< where nothing in the row says which is the result
  bool severalSamples = false;       ///< the heading has a column for each: only a person can choose
  std::string unit;
};

/// Of rows whose several figures nothing explains, which column is the result: by what the columns hold
/// together (limits are round and repeat themselves, results are neither), by where the plain rows have
/// theirs, or by which one balances as a water. Puts the figure in its place and empties `candidates` where
/// that is plain.
void chooseAmongCandidates(std::vector<RawRow>& rows);

/// Judges row after row: keys, units and forms, what comes twice, what is not needed.
ReportText reportOf(std::vector<RawRow> rows);

} // namespace butte::reading
