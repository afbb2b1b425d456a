// What was told of one occurrence of a chore: done, left out, moved.
#include "book/chore_record.h"

#include "kinds/kind_info.h"

namespace butte::book {

namespace {
Trouble checkChoreLine(const Json& body) {
  const auto line = choreLineFromJson(body);
  return line ? Trouble() : Trouble(line.problem());
}
} // namespace

const KindInfo kinds::choreLine{.kind = Kind::ChoreLine,
                                .code = "chore_line",
                                .one = "line of a chore",
                                .many = "lines of chores",
                                .check = checkChoreLine,
                                .nameKey = "chore",
                                .isListed = false,
                                .moments = {"at"},
                                .days = {"due", "to"}};

} // namespace butte::book
