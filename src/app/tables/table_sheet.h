#pragma once
#include "table/mapping.h"

#include <QDialog>
#include <optional>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace butte::book {
struct ImportPlan;
}

namespace butte::app {

class BookDesk;
class ColumnHeads;

/// A table of another's on its way into the book: what each column is taken for, what would become of the
/// rows, and what is still asked. Nothing is written before it is told to; what was said is remembered for
/// the next table of the same header.
class TableSheet : public QDialog {
  Q_OBJECT

public:
  /// `name`: the file's, or where the table came from.
  TableSheet(BookDesk& desk, QString name, reading::ForeignTable table, QWidget* parent = nullptr);
  ~TableSheet() override;

signals:
  void taken(std::size_t rows);
  void message(const QString& words);

private:
  QWidget* makeQuestions();
  void propose(std::optional<reading::TableOf> wanted);
  void showMapping();
  void look();
  void take();
  reading::TableMapping mapping() const;
  QString saidOf(const book::ImportPlan& plan, bool whole) const;

  BookDesk& m_desk;
  QString m_name;
  reading::ForeignTable m_table;
  reading::TableMapping m_mapping;
  QComboBox *m_sort, *m_dates, *m_comma;
  QLabel *m_datesWord, *m_commaWord, *m_nameWord, *m_asks, *m_rows, *m_known;
  QLineEdit* m_nameForAll;
  ColumnHeads* m_columns;
  QPushButton* m_take;
  bool m_remembered = false;
};

} // namespace butte::app
