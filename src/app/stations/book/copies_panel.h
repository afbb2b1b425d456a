#pragma once
#include <QWidget>

class QLabel;
class QListWidget;
class QPushButton;

namespace butte::app {

class BookDesk;
struct Prompts;

/// Copies of the whole book: made daily by themselves, by hand here, and gone back to after a look at what
/// would change.
class CopiesPanel : public QWidget {
  Q_OBJECT

public:
  CopiesPanel(BookDesk& desk, Prompts& prompts, QWidget* parent = nullptr);
  void refresh();

signals:
  void message(const QString& words);

private:
  void copyNow();
  void look();
  void goBack();
  QString chosen() const;
  BookDesk& m_desk;
  Prompts& m_prompts;
  QLabel *m_where, *m_changes;
  QListWidget* m_list;
  QPushButton *m_copy, *m_back;
};

} // namespace butte::app
