#pragma once
#include "book/record.h"

#include <QFrame>
#include <QTimer>
#include <functional>
#include <vector>

class QLabel;
class QLineEdit;
class QListWidget;

namespace butte::app {

class MainWindow;

/// Ctrl+K: finds whatever the book holds, every command and the help, as one types.
class Finder : public QFrame {
  Q_OBJECT

public:
  explicit Finder(MainWindow& window);
  void open();
  /// All of the help, to be narrowed by typing.
  void showContents();
  void type(const QString& text);
  QStringList shownNames() const;

protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

private:
  static QString contentsWord();
  struct Found {
    QString group, name, detail;
    std::function<void()> act; ///< nothing: a help text, shown below
    QString help;
  };
  void look();
  void addCommands(const QStringList& words);
  void addHelp(const QStringList& words);
  void addRecords(const QString& text);
  void addShipped(const QStringList& words);
  void fill();
  void take();
  void place();
  MainWindow& m_window;
  QLineEdit* m_text;
  QListWidget* m_list;
  QLabel* m_help;
  std::vector<Found> m_found;
};

/// Gives the window its Find entry and F1.
class FinderActions : public QObject {
  Q_OBJECT

public:
  explicit FinderActions(MainWindow& window);
};

} // namespace butte::app
