#pragma once
#include "record.h"

#include <cstdint>
#include <string>

namespace butte::book {

/// What a meter said of a tank.
struct Reading {
  std::int64_t number = 0; ///< 0: not in the store yet
  std::string tank;
  std::string quantity; ///< "ec" mS/cm at 25 degC, "ph", "level" L, "temperature" degC
  Moment at;
  double value = 0;
  std::string typed;     ///< as typed, with its unit: "1580 uS/cm"
  std::string importUid; ///< empty: typed in
};

/// The body of a Kind::Reading record (docs/formats/book.md).
Json toJson(const Reading& reading);

} // namespace butte::book
