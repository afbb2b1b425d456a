#pragma once
#include "edits/chore_edits.h"

#include "document/shelf_story.h"

#include <QWidget>

class QComboBox;
class QDate;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;

namespace butte::app {

class AgendaPicture;
class BookDesk;
class NumberField;
class WrappedLabel;
struct Prompts;
class UnitsShown;

/// The calendar: what hands have to do, done with one press, moved by dragging; one's own chores; calendars
/// of others; the sheet for the wall.
class AgendaView : public QWidget {
  Q_OBJECT

public:
  AgendaView(BookDesk& desk, UnitsShown& units, Prompts& prompts, QWidget* parent = nullptr);
  void show(const SharedShelfStory& story, bool readOnly);

signals:
  void message(const QString& words);

private:
  QWidget* makeSide();
  QWidget* makeNew();
  void showDue();
  void tell(core::ChoreDid did, int due, core::Day to = {});
  void keepNew();
  void strikeOwn();
  void writeCalendar();
  void bringIn();
  void writeSheet();
  void printSheet();
  void said(const book::Trouble& trouble, const QString& done);
  const book::AgendaItem* chosenItem() const;

  BookDesk& m_desk;
  UnitsShown& m_units;
  Prompts& m_prompts;
  ChoreEdits m_edits;
  SharedShelfStory m_story = std::make_shared<const ShelfStory>();
  AgendaPicture* m_picture;
  QLabel* m_title;
  WrappedLabel* m_why;
  QListWidget* m_history;
  QPushButton *m_done, *m_leftOut, *m_strike;
  QLineEdit *m_name, *m_first;
  NumberField* m_every;
  QComboBox* m_unit;
};

} // namespace butte::app
