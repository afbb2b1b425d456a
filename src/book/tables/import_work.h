#pragma once
#include "book/tables/tables.h"
#include "table/plain_table.h"

#include <memory>

namespace butte::book {

class TableImport;
class ReadingsIn;

/// A table looked at and brought in, so many rows at a time: what a window does between the strokes of a
/// hand, however long the table is. Until the last row nothing of it shows in the book; what was written
/// when it is broken off lies in the bin.
class ImportWork {
public:
  /// `table` as reading::plainTable() has it; it takes as long as reading the rows, and may come from
  /// another thread.
  ImportWork(Book& book, reading::PlainTable table, const reading::TableMapping& mapping,
             std::string fileName);
  ~ImportWork();

  enum class At { Looking, Writing, Done };
  At at() const { return m_at; }
  /// Goes on with so many rows.
  Trouble go(std::size_t rows);
  /// Of the stage it is at, 0 to 100.
  int percent() const;
  /// Rows that are taken; whole once it has looked at all.
  std::size_t taken() const { return m_plan.taken; }

private:
  Trouble look(std::size_t rows);

  Book& m_book;
  std::string m_fileName;
  At m_at = At::Looking;
  std::unique_ptr<TableImport> m_import;
  ImportPlan m_plan;
  std::unique_ptr<ReadingsIn> m_readings;
};

} // namespace butte::book
