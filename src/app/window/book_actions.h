#pragma once
#include "base/result.h"
#include "book/record.h"
#include "document/background.h"
#include "table/mapping.h"

#include <QObject>
#include <QStringList>

class QAction;
class QMenu;

namespace butte::app {

class MainWindow;

/// The Book menu: which book is open, what goes into it and out of it.
class BookActions : public QObject {
  Q_OBJECT

public:
  explicit BookActions(MainWindow& window);

  /// At the program's start: the book or formula named, the sample, the last book, else the way in. After an
  /// unfinished start no formula is taken in hand; after two the last books stay closed; both are said.
  void start(bool demo, const QStringList& files, int unfinishedStarts = 0);
  bool openBook(const QString& path, bool takeOver = false);
  /// A book is opened, a formula file or a table brought in; whatever else is refused in words.
  bool openAnything(const QString& path);
  void makeBook();
  void openSample();
  void startSampleAfresh();
  void lookAgain();
  void writeJson();
  bool writeJsonTo(const QString& path);
  void bookFromJson();
  bool bookFromJsonFile(const QString& source, const QString& target);
  /// Reads a table, shows row by row what would be taken, and takes it when told so.
  void importTable();
  /// One of our own is asked about in a word; another's opens a sheet that asks what its columns hold.
  bool importTableFrom(const QString& path);
  bool importTableText(const QString& name, std::string bytes);
  /// What a spreadsheet put on the clipboard.
  void pasteTable();
  void exportTable(book::Kind kind);
  bool exportTableTo(book::Kind kind, const QString& path, bool decimalComma);

private:
  void addActions(QMenu* menu);
  bool openUsualBook();
  void openBookAside(const QString& why);
  bool heal(const QString& path, const core::Problem& damage);
  bool bringIn(const QString& name, core::Result<reading::ForeignTable> table);
  bool askAboutOwn(const QString& name, const reading::ForeignTable& table,
                   const reading::TableMapping& mapping);
  void sayTaken(const QString& name, std::size_t rows);
  void fillRecent();
  void copyDaily();
  bool tell(const book::Trouble& trouble, const QString& what);
  MainWindow& m_window;
  QMenu* m_recent = nullptr;
  QAction* m_decimalComma = nullptr;
  Background m_background;
};

} // namespace butte::app
