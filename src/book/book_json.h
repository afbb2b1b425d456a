#pragma once
#include "record.h"
#include "store.h"

#include <iosfwd>
#include <string>

/// A whole book as one JSON file (docs/formats/book.md): everything that is in it, and back.
namespace butte::book {

inline constexpr const char* bookJsonName = "butte-book";
inline constexpr int bookJsonVersion = 2; ///< 1: readings named their tank, versions and steps held sentences

struct ReadBookJson {
  /// Moves all times by whole days so that the sample's newest batch was mixed yesterday.
  bool shiftToToday = false;
};

/// Writes the whole book. The file appears whole or not at all.
Trouble writeBookJson(Store& store, const std::string& path);

/// Reads such a text into a new book at `path`, which must not exist. Everything is checked; at the first
/// fault the new file goes away again and the Problem names the place ("records[12].body.batch.amount").
Trouble readBookJson(std::istream& text, const std::string& path, ReadBookJson how = {});
Trouble readBookJson(const std::string& text, const std::string& path, ReadBookJson how = {});

} // namespace butte::book
