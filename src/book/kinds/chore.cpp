// Something that hands have to do, again and again or once.
#include "book/chore_record.h"

#include "kinds/kind_info.h"

namespace butte::book {

namespace {
Trouble checkChore(const Json& body) {
  const auto chore = choreFromJson(body);
  return chore ? Trouble() : Trouble(chore.problem());
}
} // namespace

const KindInfo kinds::chore{.kind = Kind::Chore,
                            .code = "chore",
                            .one = "chore",
                            .many = "chores",
                            .check = checkChore,
                            .isListed = false,
                            .days = {"starts"}};

} // namespace butte::book
