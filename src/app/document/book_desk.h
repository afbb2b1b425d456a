#pragma once
#include "book/book.h"
#include "formula_document.h"

#include <QObject>
#include <QSettings>
#include <QString>
#include <memory>

namespace butte::app {

class FormulaEditor;

/// Why nothing can be kept or read while no book is open.
core::Problem noBookOpen();

/// The open farm book and the formula in hand: what ties the stations to what is kept.
class BookDesk : public QObject {
  Q_OBJECT

public:
  /// Sample books, snapshots and the first book live under `dataFolder` unless the person chooses otherwise.
  BookDesk(FormulaEditor& editor, QSettings& settings, QString dataFolder, QObject* parent = nullptr);
  ~BookDesk() override;

  bool isOpen() const { return m_book != nullptr; }
  book::Book& book() { return *m_book; }
  const book::Ref& inHand() const { return m_inHand; }
  QString dataFolder() const { return m_dataFolder; }
  QString path() const;
  bool isSample() const { return m_sample; }
  bool isReadOnly() const { return m_book && m_book->isReadOnly(); }

  book::Trouble openBook(const QString& path, bool takeOver = false);
  book::Trouble createBook(const QString& path, const QString& farm);
  /// The same for now: the next start opens the books of before.
  book::Trouble createBookAside(const QString& path, const QString& farm);
  /// The made-up farm that ships; `afresh` throws away what was tried in it.
  book::Trouble openSample(bool afresh = false);
  /// Closes the book, runs `between` on its file and opens it again.
  book::Trouble reopenAfter(const std::function<book::Trouble(const QString& path)>& between);

  book::Trouble openFormula(const book::Ref& ref);
  /// Puts a new formula into the book and takes it in hand.
  book::Trouble addFormula(exchange::Json json, const core::Deed& deed);
  /// Another formula of the book, read; or one in hand as it was. Errors: it is not there, or does not read.
  core::Result<exchange::FormulaDocument> formula(const std::string& uid);
  core::Result<exchange::FormulaDocument> versionInHand(int number);
  /// The formula as it stands becomes a version: used, printed or named.
  core::Result<int> makeVersion(const QString& why, const QString& name = {});

  QString initials() const;
  void setInitials(const QString& initials);
  QStringList recentBooks() const;
  QString firstBookPath() const;
  /// Books that are opened now begin with an empty page instead of the formula that was in hand.
  void setTakingNothingInHand(bool on) { m_nothingInHand = on; }

signals:
  void bookOpened();
  /// What is still on its way into the book that is open must get there now.
  void bookClosing();
  void changed(const std::vector<butte::book::Ref>& refs);
  void message(const QString& words);
  /// Whether everything is safe in the file: "kept", "keeping…" or what stands in the way.
  void keepingChanged(const QString& words, bool trouble);

private:
  book::Trouble take(std::unique_ptr<book::Book> opened);
  void takeSomeFormula();
  bool takeLastFormula();
  void onChanged(const std::vector<book::Ref>& refs);
  void remember(const QString& path);

  FormulaEditor& m_editor;
  QSettings& m_settings;
  QString m_dataFolder;
  std::unique_ptr<book::Book> m_book;
  book::Ref m_inHand;
  bool m_sample = false;
  bool m_nothingInHand = false;
};

} // namespace butte::app
