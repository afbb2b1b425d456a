// What was done to a vessel: a line of its log.
#include "book/tank_line.h"

#include "kinds/kind_info.h"

namespace butte::book {

namespace {
Trouble checkTankLine(const Json& body) {
  const auto line = tankLineFromJson(body);
  return line ? Trouble() : Trouble(line.problem());
}
} // namespace

const KindInfo kinds::tankLine{.kind = Kind::TankLine,
                               .code = "tank_line",
                               .one = "line of a tank's log",
                               .many = "lines of tanks' logs",
                               .check = checkTankLine,
                               .nameKey = "vessel",
                               .isListed = false,
                               .moments = {"at"}};

} // namespace butte::book
