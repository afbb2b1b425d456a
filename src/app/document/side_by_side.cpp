#include "document/side_by_side.h"

namespace butte::app {

SideBySide compared(const ComparedSide& left, const ComparedSide& right) {
  SideBySide out{left.name, right.name, book::compareFormulas(*left.body, *right.body), {}};
  for (const auto& line : book::changesBetween(book::Kind::Formula, *left.body, *right.body))
    out.changes << QString::fromStdString(line);
  return out;
}

} // namespace butte::app
