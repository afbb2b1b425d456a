#pragma once
#include "report/line_items.h"

namespace butte::reading {

/// A figure with what may stand before and behind it, from `at` on: "<", flags, footnotes, "± 0.4",
/// "x 10^-3"; or a range, or a date, which are no figures.
struct FigureFound {
  std::size_t length = 0;
  Item::Kind kind = Item::Kind::Figure;
  Figure figure;
  std::string flag;
};
/// `wholeCell`: a cell of its own begins there, so that blanks may part its thousands ("1 250").
std::optional<FigureFound> figureAt(Atoms atoms, std::size_t at, std::size_t end, DecimalMark mark,
                                    bool wholeCell);

} // namespace butte::reading
