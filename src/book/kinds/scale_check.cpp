// A known weight on a scale, and what it showed.
#include "book/scale_check.h"

#include "kinds/kind_info.h"

namespace butte::book {

namespace {
Trouble checkScaleCheck(const Json& body) {
  const auto check = scaleCheckFromJson(body);
  return check ? Trouble() : Trouble(check.problem());
}
} // namespace

const KindInfo kinds::scaleCheck{.kind = Kind::ScaleCheck,
                                 .code = "scale_check",
                                 .one = "check of a scale",
                                 .many = "checks of scales",
                                 .check = checkScaleCheck,
                                 .nameKey = "scale",
                                 .isListed = false};

} // namespace butte::book
