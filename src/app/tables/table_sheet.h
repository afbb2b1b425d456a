#pragma once
#include "document/background.h"
#include "table/mapping.h"
#include "table/plain_table.h"

#include <QDialog>
#include <QTimer>
#include <memory>
#include <optional>

class QComboBox;
class QHBoxLayout;
class QLabel;
class QLineEdit;
class QProgressBar;
class QPushButton;

namespace butte::book {
struct ImportPlan;
class ImportWork;
} // namespace butte::book

namespace butte::app {

class BookDesk;
class ColumnHeads;

/// A table of another's on its way into the book: what each column is taken for, what would become of the
/// rows, and what is still asked. Nothing is written before it is told to; what was said is remembered for
/// the next table of the same header.
class TableSheet : public QDialog {
  Q_OBJECT

public:
  /// `name`: the file's, or where the table came from. `proposed`: what its columns are taken for.
  TableSheet(BookDesk& desk, QString name, reading::ForeignTable table, reading::TableMapping proposed,
             QWidget* parent = nullptr);
  ~TableSheet() override;
  /// Breaks off what is being looked at; what is being written is written.
  void reject() override;

signals:
  void taken(std::size_t rows);
  void message(const QString& words);

private:
  QWidget* makeQuestions();
  QHBoxLayout* makeButtons();
  void begin(reading::TableMapping proposed);
  void propose(reading::TableOf wanted);
  void showMapping();
  void look();
  void take();
  void takeBehind(const reading::TableMapping& now);
  void goOn();
  void showWork(bool on);
  void end(std::size_t rows);
  reading::TableMapping mapping() const;
  QString saidOf(const book::ImportPlan& plan, bool whole) const;

  BookDesk& m_desk;
  QString m_name;
  std::shared_ptr<const reading::ForeignTable> m_table; ///< looked through behind the window's thread too
  reading::TableMapping m_mapping;
  QComboBox *m_sort, *m_dates, *m_comma;
  QLabel *m_datesWord, *m_commaWord, *m_nameWord, *m_asks, *m_rows, *m_known;
  QLineEdit* m_nameForAll;
  ColumnHeads* m_columns;
  QPushButton *m_take, *m_stop;
  QProgressBar* m_progress;
  bool m_remembered = false;
  Background m_background;
  std::unique_ptr<book::ImportWork> m_work;
  QTimer m_goOn;
};

} // namespace butte::app
