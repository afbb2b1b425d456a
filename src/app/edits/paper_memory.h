#pragma once
#include "memory/row_answers.h"
#include "table/mapping.h"

#include <QString>
#include <QStringList>
#include <optional>
#include <vector>

namespace butte::book {
struct Record;
}

namespace butte::app {

class BookDesk;

/// What was answered about papers of others, for the next one of the same layout. Kept in the open book, one
/// step of undo each; shown, renamed and binned there like any other thing.
class PaperMemory {
public:
  explicit PaperMemory(BookDesk& desk) : m_desk(desk) {}

  /// What was said of a table of this header before.
  std::optional<reading::TableMapping> mapping(const reading::ForeignTable& table) const;
  /// `name`: the file's, by which a person finds it.
  void keep(const QString& name, const reading::ForeignTable& table, const reading::TableMapping& mapping);

  /// What was said of reports of this layout before; nothing where that is none.
  std::vector<reading::RowAnswer> answers(const reading::ReportText& read) const;
  void keep(const QString& name, const reading::ReportText& read, const reading::RowsAnswered& answered);

private:
  BookDesk& m_desk;
};

/// What was answered, a line each, for a person to look at.
QStringList layoutSaid(const book::Record& layout);

} // namespace butte::app
