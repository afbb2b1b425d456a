#pragma once
#include "report/columns.h"

namespace butte::reading {

/// One figure of a report before it is judged: a name, what stands for its figure, and its unit.
struct RowGroup {
  std::vector<const Item*> names;
  const Item* figure = nullptr;        ///< Figure, NotMeasured, Formula, or a Text in its place
  std::vector<const Item*> candidates; ///< all that could be the figure, where nothing says which
  std::string unit;
  std::vector<std::string> form;
  bool below = false;          ///< said by a flag in a column of its own
  bool severalSamples = false; ///< `candidates` stand in columns of unknown headings
  std::size_t candidate = 0;   ///< which of them `figure` is
};

/// The groups of a line below a heading: "Calcium 52 mg/L | Sulfate 41 mg/L" has two.
std::vector<RowGroup> groupsUnder(const Heading& heading, const Line& line);

/// The groups of a line that no heading explains.
std::vector<RowGroup> groupsAlone(const Line& line);

/// The groups of a line of figures below names across the top.
std::vector<RowGroup> groupsBelowNames(const Heading& heading, const Line& line);

} // namespace butte::reading
