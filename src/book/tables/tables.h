#pragma once
#include "book/book.h"
#include "measures.h"
#include "table/mapping.h"
#include "table_words.h"

#include <string>
#include <vector>

/// Products, waters, targets, batches and readings as CSV tables (docs/formats/tables.md), both ways.
namespace butte::book {

/// What would become of one row of a table.
struct ImportRow {
  int line = 0; ///< in the file, from 1
  bool taken = false;
  words::RowSaying saying; ///< "Bore: report of 2026-03-02 added", or what is wrong, not yet in words
};

/// A table read and checked, nothing written yet.
struct ImportPlan {
  Kind kind = Kind::Water;
  std::size_t taken = 0;
  std::vector<ImportRow> rows;
  std::vector<RecordChange> changes;
  std::vector<Reading> readings;
};

/// What the rows of a table are in the book.
Kind kindOf(reading::TableOf table);

/// "waters, cells parted by ';', decimal comma"
std::string aboutTable(const reading::ForeignTable& table, const reading::TableMapping& mapping);

/// What would become of the rows of a table as a mapping has them. The mapping has no open question.
/// Errors: the book can't be read.
core::Result<ImportPlan> planImport(Store& store, const reading::ForeignTable& table,
                                    const reading::TableMapping& mapping);

/// The same of a table whose mapping need not be asked for. Errors: the table as a whole can't be read, or
/// leaves a question open.
core::Result<ImportPlan> planImport(Store& store, const std::string& bytes);

/// Takes what the plan takes, as one step of undo, all or nothing.
Trouble import(Book& book, const ImportPlan& plan, const std::string& fileName);

/// Writes all of a kind that is not in the bin. With a decimal comma cells are parted by ';'. Batches and
/// readings stand in the units of `measures`; what a grower typed of waters, targets and products as typed.
Trouble writeTable(Store& store, Kind kind, const std::string& path, bool decimalComma = false,
                   const words::Measures& measures = {});

} // namespace butte::book
