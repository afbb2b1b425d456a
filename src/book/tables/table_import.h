#pragma once
#include "book/tables/table_kind.h"
#include "book/tables/tables.h"
#include "table/plain_table.h"

#include <map>
#include <set>
#include <string>

namespace butte::book {

/// What is known of a name so far: the record as it stands in the book and as the rows before have made it.
struct KnownRecord {
  Ref ref;
  std::optional<Json> before;
  Json now;
};

/// A table on its way into the book: each row becomes a record or a word about what is wrong with it. The
/// kinds say how (TableKind::take); here is what they share.
class TableImport {
public:
  /// `decimalComma`: how the table that it came from writes numbers, for what is said of a wrong one.
  TableImport(Store& store, reading::PlainTable table, Kind kind, bool decimalComma);
  core::Result<ImportPlan> plan();
  /// The same in pieces: looks at so many rows more; once all were seen, what becomes of them.
  Trouble look(std::size_t rows);
  bool hasSeenAll() const { return m_begun && m_seenRows == m_table.rows.size(); }
  std::size_t seen() const { return m_seenRows; }
  std::size_t rowCount() const { return m_table.rows.size(); }
  ImportPlan takePlan();

  Store& store() { return m_store; }
  std::string cell(const core::CsvRow& row, std::string_view column) const;

  /// A number cell as digits with a decimal point; empty cells are no number and nothing wrong.
  struct Number {
    std::string digits;
    bool below = false; ///< "<0.05"
  };
  /// Nothing, with the words in `wrong`, where the cell is no number.
  std::optional<Number> number(const core::CsvRow& row, const std::string& column, RowSaid& wrong,
                               bool mayBeBelow = false) const;

  /// The body under this name as the book or the rows before have it.
  std::optional<Json> known(const std::string& name) const;
  /// Keeps a body under its name: new, or changed, or the same as before.
  RowSaid put(const std::string& name, Json body, const RowSaid& changed);
  /// Adds one dated report to a thing that is known or new. It alone is looked at: a thousand reports of one
  /// source take a thousand steps, not half a million. `there` where one of that date was there before.
  RowSaid addReport(const std::string& name, Json report, const RowSaid& added, const RowSaid& there);
  std::map<std::string, KnownRecord>& records() { return m_known; }

  void addReading(const Reading& reading) { m_plan.readings.push_back(reading); }
  /// False where this was noted before.
  bool noteOnce(const std::string& key) { return m_seen.insert(key).second; }
  void addChange(RecordChange change) { m_plan.changes.push_back(std::move(change)); }

private:
  Trouble readKnown();
  void noteDates(const std::string& name);

  Store& m_store;
  reading::PlainTable m_table;
  bool m_decimalComma;
  const TableKind& m_how;
  Kind m_kind;
  std::map<std::string, KnownRecord> m_known;
  std::set<std::string> m_seen;
  std::map<std::string, std::set<std::string>> m_dates; ///< of the reports of each source
  bool m_begun = false;
  std::size_t m_seenRows = 0;
  ImportPlan m_plan;
};

/// RowSaid for a body that the book would refuse.
RowSaid faulty(const core::Problem& problem);

} // namespace butte::book
