#pragma once
#include "book/record.h"

#include <array>
#include <string_view>
#include <vector>

/// All that the book must know of a kind, in one place for each (docs/architecture.md, "The book").
namespace butte::book {

struct TableKind;

/// Which tables of the store hold it.
enum class Home { Things, Batches, Readings };

struct KindInfo {
  Kind kind = Kind::Formula;
  std::string_view code;
  const char *one = "", *many = ""; ///< "stock plan", "stock plans": English, for words::text()
  /// Whether a body is a whole record of the kind: what the book refuses to keep otherwise.
  Trouble (*check)(const Json& body) = nullptr;
  Home home = Home::Things;
  std::string_view nameKey = "name"; ///< where a body has what a person calls it
  bool isListed =
      true; ///< a person looks for it: found by Ctrl+K, counted, told of when a copy is taken back
  /// What a hand changed between two states; places that most things have, where there is none.
  std::vector<core::Change> (*changes)(const Json& before, const Json& after) = nullptr;
  /// Keys of the body that hold a time, or a day: a sample moves them to today.
  std::array<const char*, 2> moments{}, days{};
  const TableKind* table = nullptr; ///< as a CSV table; nothing where there is none
};

const KindInfo& infoOf(Kind kind);

/// The same, asked in one go.
Trouble checkRecord(Kind kind, const Json& body);
std::vector<core::Change> changesBetween(Kind kind, const Json& before, const Json& after);
/// What a person calls the thing; empty where it has no name.
std::string nameIn(Kind kind, const Json& body);

/// The kinds, each in its own file.
namespace kinds {
extern const KindInfo water, product, target, formula, stockPlan, vessel, batch, reading, readingImport,
    paperLayout, benchRun, scaleCheck, tankLine, stream, lot, shelfLine, chore, choreLine;
}

} // namespace butte::book
