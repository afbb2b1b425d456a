#pragma once
#include "record.h"

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

namespace butte::book {

/// What meters say of a vessel. The store keeps any; a new one is a line in kinds/reading.cpp and its name in
/// words/deed_words.cpp.
struct Quantity {
  std::string_view code;
  std::string_view unit;               ///< of the kept value; empty for a pure number
  std::vector<std::string_view> typed; ///< units that a hand may type it in, the kept one first
  double least = 0, most = 1e9;        ///< of the kept value
};
const std::vector<Quantity>& quantities();
/// "" (not doubted), "wild", "stuck", "clock".
bool isReadingMark(std::string_view mark);
/// Nothing for a code that is none.
const Quantity* quantityFrom(std::string_view code);

/// What a meter said of a vessel.
struct Reading {
  std::int64_t number = 0; ///< 0: not in the store yet
  std::string vesselUid;   ///< a Kind::Vessel
  std::string quantity;    ///< "ec" mS/cm at 25 degC, "ph", "level" L, "temperature" degC
  Moment at;
  double value = 0;
  std::string typed;      ///< as typed, with its unit: "1580 uS/cm"
  std::string importUid;  ///< empty: typed in
  std::string vesselName; ///< of the vessel as it is called now; only read
  std::string mark = {};  ///< of one that came by itself, where it is doubted: "wild", "stuck", "clock"
};

/// The uid of a vessel that first came up under this name: the same in every book, so that the same table
/// brought in twice, or an old copy, speaks of the same vessel (migrations/0005_vessels.sql makes it too).
std::string vesselUidOf(const std::string& name);

/// The body of a Kind::Reading record (docs/formats/book.md).
Json toJson(const Reading& reading);

} // namespace butte::book
