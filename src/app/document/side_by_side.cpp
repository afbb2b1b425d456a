#include "document/side_by_side.h"

#include "book/kinds/kind_info.h"
#include "change_words.h"

namespace butte::app {

SideBySide compared(const ComparedSide& left, const ComparedSide& right) {
  SideBySide out{left.name, right.name, book::compareFormulas(*left.body, *right.body), {}};
  for (const auto& change : book::changesBetween(book::Kind::Formula, *left.body, *right.body))
    out.changes << QString::fromStdString(words::changeText(change));
  return out;
}

} // namespace butte::app
