#pragma once
#include "base/csv.h"
#include "book/store.h"
#include "table_words.h"

#include <string_view>

namespace butte::book {

class TableWriter;
class TableImport;

/// Words for a row that is taken, or what is wrong.
struct RowSaid {
  bool taken = false;
  words::RowSaying saying;
};
inline RowSaid no(words::RowCode code, std::vector<std::string> values = {}) {
  return {false, {code, std::move(values)}};
}
inline RowSaid yes(words::RowCode code, std::vector<std::string> values = {}) {
  return {true, {code, std::move(values)}};
}

/// A kind as a CSV table (docs/formats/tables.md), both ways.
struct TableKind {
  std::string_view firstColumn; ///< says what the table is: "product"
  const char* name = "";        ///< "products": English, for words::text()
  Trouble (*write)(Store& store, TableWriter& out) = nullptr;
  RowSaid (*take)(TableImport& import, const core::CsvRow& row) = nullptr;
};

} // namespace butte::book
