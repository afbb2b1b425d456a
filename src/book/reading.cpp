#include "reading.h"

namespace butte::book {

Json toJson(const Reading& reading) {
  return {{"tank", reading.tank},   {"quantity", reading.quantity}, {"at", reading.at.iso()},
          {"value", reading.value}, {"typed", reading.typed},       {"import", reading.importUid}};
}

} // namespace butte::book
