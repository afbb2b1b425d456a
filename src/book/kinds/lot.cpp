// Bags of one delivery, on the shelf.
#include "book/shelf_record.h"

#include "kinds/kind_info.h"

namespace butte::book {

namespace {
Trouble checkLot(const Json& body) {
  const auto lot = lotFromJson(body);
  return lot ? Trouble() : Trouble(lot.problem());
}
} // namespace

const KindInfo kinds::lot{.kind = Kind::Lot,
                          .code = "lot",
                          .one = "lot",
                          .many = "lots",
                          .check = checkLot,
                          .isListed = false,
                          .moments = {"bought", "best_before"}};

} // namespace butte::book
