#pragma once
#include "book/paper_layouts.h"
#include "memory/row_answers.h"
#include "table/mapping.h"

#include <QObject>
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
class PaperMemory : public QObject {
  Q_OBJECT

public:
  explicit PaperMemory(BookDesk& desk);

  /// What was said of a table of this header before.
  std::optional<reading::TableMapping> mapping(const reading::ForeignTable& table) const;
  /// `name`: the file's, by which a person finds it.
  void keep(const QString& name, const reading::ForeignTable& table, const reading::TableMapping& mapping);

  /// What was said of reports of this layout before; nothing where that is none. Asked at each key: the book
  /// is read when it has changed, no oftener.
  std::vector<reading::RowAnswer> answers(const reading::ReportText& read) const;
  void keep(const QString& name, const reading::ReportText& read, const reading::RowsAnswered& answered);

private:
  void forget() { m_reports.reset(); }
  BookDesk& m_desk;
  mutable std::optional<std::vector<book::KnownLayout<book::ReportLayout>>>
      m_reports; ///< as the book has them
};

/// What was answered, a line each, for a person to look at.
QStringList layoutSaid(const book::Record& layout);

} // namespace butte::app
