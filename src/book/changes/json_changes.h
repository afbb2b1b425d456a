#pragma once
#include "base/change.h"
#include "book/record.h"

#include <string>
#include <vector>

/// What differs between two JSON documents, place by place.
namespace butte::book {

/// The two states that are compared, and where what differs is noted.
struct Differences {
  const Json& before;
  const Json& after;
  std::vector<core::Change>& out;

  /// A text, a figure with its unit, a choice at a pointer. `place` is the key of its name in
  /// words/change_words.cpp; `whose` goes into that name ("Bore" in "Bore pH").
  void place(const std::string& pointer, const std::string& place, const std::string& whose = {}) const;

  /// Rows such as {"key": "Ca", "mg_per_l": "31.9"} on both sides.
  struct Table {
    std::string pointer, table, whose;
    const char *key, *value, *unit;
  };
  void rows(const Table& table) const;
};

/// The text at a pointer; empty where there is none.
std::string textAt(const Json& json, const std::string& pointer);

} // namespace butte::book
