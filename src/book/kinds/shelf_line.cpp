// What was done to a lot on the shelf: a count, waste, an opening, a sample that was dried.
#include "book/shelf_record.h"

#include "kinds/kind_info.h"

namespace butte::book {

namespace {
Trouble checkShelfLine(const Json& body) {
  const auto line = shelfLineFromJson(body);
  return line ? Trouble() : Trouble(line.problem());
}
} // namespace

const KindInfo kinds::shelfLine{.kind = Kind::ShelfLine,
                                .code = "shelf_line",
                                .one = "line of a lot",
                                .many = "lines of lots",
                                .check = checkShelfLine,
                                .nameKey = "lot",
                                .isListed = false,
                                .moments = {"at"}};

} // namespace butte::book
