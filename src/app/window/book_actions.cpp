#include "window/book_actions.h"

#include "book/book_json.h"
#include "book/copies.h"
#include "book/kinds/kind_info.h"
#include "book/open_store.h"
#include "book/tables/table_kind.h"
#include "book/tables/tables.h"
#include "language.h"
#include "scan/paper_reader.h"
#include "tables/table_sheet.h"
#include "window/file_actions.h"
#include "window/main_window.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QApplication>
#include <QClipboard>
#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QLocale>
#include <QMenuBar>
#include <QTimer>
#include <fstream>

namespace butte::app {

using book::Kind;

namespace {
QString bookFilter() {
  return tr("Farm books (*.butte)");
}
QString jsonFilter() {
  return tr("Whole book as JSON (*.json)");
}
QString tableFilter() {
  return tr("Tables (*.csv *.txt *.tsv *.tab *.md);;All files (*)");
}
constexpr qint64 largestTable = 64 << 20;
constexpr int rowsShown = 14;

} // namespace

BookActions::BookActions(MainWindow& window) : QObject(&window), m_window(window) {
  addActions(window.menuBar()->addMenu(tr("&Book")));
  connect(&window.desk(), &BookDesk::bookOpened, this,
          [this] { QTimer::singleShot(1500, this, &BookActions::copyDaily); });
}

void BookActions::addActions(QMenu* menu) {
  const auto add = [&](const QString& text, QKeySequence keys, auto slot) {
    return menu->addAction(text, keys, this, slot);
  };
  add(tr("&Open a book…"), QKeySequence::Open, [this] {
    const auto path =
        m_window.prompts().fileToOpen(tr("Open a farm book"), m_window.desk().path(), bookFilter());
    if (!path.isEmpty()) openAnything(path);
  });
  m_recent = menu->addMenu(tr("Open &recent"));
  connect(m_recent, &QMenu::aboutToShow, this, &BookActions::fillRecent);
  add(tr("&New book…"), {}, &BookActions::makeBook);
  add(tr("&Sample book (Ormsey Glass)"), {}, &BookActions::openSample)->setObjectName("openSample");
  add(tr("Sample book afr&esh"), {}, &BookActions::startSampleAfresh);
  add(tr("Re&fresh"), QKeySequence("F5"), &BookActions::lookAgain);
  menu->addSeparator();
  add(tr("&Bring in a table…"), {}, &BookActions::importTable)->setObjectName("importTable");
  add(tr("Bring in the table on the cli&pboard…"), {}, &BookActions::pasteTable)->setObjectName("pasteTable");
  auto* tables = menu->addMenu(tr("Write a &table (CSV)"));
  for (const auto kind : book::allKinds()) {
    if (const auto* table = book::infoOf(kind).table) {
      auto name = QString::fromStdString(words::text(table->name));
      name[0] = name[0].toUpper();
      tables->addAction(name + "…", this, [this, kind] { exportTable(kind); });
    }
  }
  tables->addSeparator();
  m_decimalComma = tables->addAction(tr("With a decimal comma, cells parted by ;"));
  m_decimalComma->setCheckable(true);
  m_decimalComma->setChecked(QLocale().decimalPoint() == ",");
  menu->addSeparator();
  add(tr("Whole book into one &JSON file…"), {}, &BookActions::writeJson);
  add(tr("Ne&w book from a JSON file…"), {}, &BookActions::bookFromJson);
  menu->addSeparator();
  add(tr("Your &initials…"), {}, [this] {
    const auto initials = m_window.prompts().words(
        tr("Your initials"), tr("They stand beside what you change and mix:"), m_window.desk().initials());
    if (!initials.isEmpty()) m_window.desk().setInitials(initials);
  });
  menu->addSeparator();
  menu->addAction(tr("&Quit"), QKeySequence::Quit, &m_window, &QWidget::close);
}

bool BookActions::tell(const book::Trouble& trouble, const QString& what) {
  if (trouble) m_window.prompts().trouble(what + "\n\n" + problemWords(*trouble));
  return !trouble;
}

/// The book of the last time, or the first one of all; true where it is new. There is always one to work in.
bool BookActions::openUsualBook() {
  auto& desk = m_window.desk();
  bool hadOne = false;
  auto known = desk.recentBooks();
  known << desk.firstBookPath();
  for (const auto& recent : known) {
    if (!QFile::exists(recent)) continue;
    hadOne = true;
    if (openBook(recent)) return false;
  }
  if (!hadOne &&
      tell(desk.createBook(desk.firstBookPath(), tr("My farm")), tr("No book could be made here.")))
    return true;
  openBookAside(tr("None of your books can be opened. You work in an empty one for now; yours stay as they "
                   "are, and their copies beside them."));
  return false;
}

/// An empty book to work in while the usual one stays closed, and why.
void BookActions::openBookAside(const QString& why) {
  auto& desk = m_window.desk();
  const auto name = tr("Set aside") + QDateTime::currentDateTime().toString(" yyyy-MM-dd HHmmss") + ".butte";
  for (const auto& folder : {QFileInfo(desk.firstBookPath()).absolutePath(), QDir::tempPath()}) {
    if (desk.createBookAside(folder + "/" + name, tr("My farm"))) continue;
    return m_window.prompts().trouble(why);
  }
  m_window.prompts().trouble(tr("No book could be made, here or in %1: what you type now is not kept.")
                                 .arg(QDir::toNativeSeparators(QDir::tempPath())));
}

/// Puts the newest whole copy in a damaged book's place, when the person says so.
bool BookActions::heal(const QString& path, const core::Problem& damage) {
  for (const auto& copy : book::copiesOf(path.toStdString())) {
    const auto day = QDateTime::fromSecsSinceEpoch(copy.at.seconds);
    if (!m_window.prompts().goOn(tr("A damaged book"),
                                 tr("%1 can't be opened: %2\n\nA copy of it was made on %3. Put that in its "
                                    "place? What lies there "
                                    "now is kept among the copies.")
                                     .arg(QFileInfo(path).fileName(), problemWords(damage),
                                          QLocale().toString(day, QLocale::ShortFormat)),
                                 tr("Take the copy")))
      return false;
    if (tell(book::goBackTo(path.toStdString(), copy.path),
             tr("This copy can't be used; the next older one:")))
      return true;
  }
  return false;
}

void BookActions::start(bool demo, const QStringList& files, int unfinishedStarts) {
  auto& desk = m_window.desk();
  desk.setTakingNothingInHand(unfinishedStarts > 0);
  QStringList formulas;
  for (const auto& file : files) {
    if (file.endsWith(".butte"))
      openBook(file);
    else
      formulas << file;
  }
  if (!desk.isOpen() && demo) openSample();
  bool fresh = false;
  if (!desk.isOpen() && unfinishedStarts > 1)
    openBookAside(
        tr("Butte did not get through its last starts. Your book stays as it is and closed; this one "
           "is empty. Book > Open brings yours back; its copies lie beside it."));
  else if (!desk.isOpen())
    fresh = openUsualBook();
  desk.setTakingNothingInHand(false);
  if (unfinishedStarts == 1)
    m_window.say(tr("Butte did not get through its last start: the formula of then is in the book, not in "
                    "hand. Book > Formulas opens it."));
  for (const auto& file : formulas)
    openAnything(file);
  if (fresh && formulas.isEmpty()) m_window.showFirstStart();
}

bool BookActions::openBook(const QString& path, bool takeOver) {
  auto& desk = m_window.desk();
  const auto name = QFileInfo(path).fileName();
  auto trouble = desk.openBook(path, takeOver);
  if (trouble && trouble->code == core::ProblemCode::BookDamaged && heal(path, *trouble))
    trouble = desk.openBook(path, takeOver);
  if (!tell(trouble, tr("%1 was not opened; it stays as it is.").arg(name))) return false;
  const auto& holder = desk.book().heldBy();
  const bool silent = holder && !holder->host.empty() &&
                      book::Moment::now().seconds - holder->heard.seconds > book::OwnerMark::silentSeconds;
  if (silent && !takeOver &&
      m_window.prompts().goOn(tr("Take the book over?"),
                              tr("%1, but has given no sign of life since %2.\n\nTake it over only when "
                                 "Butte is surely closed there.")
                                  .arg(QString::fromStdString(desk.book().readOnlyWords()),
                                       QString::fromStdString(holder->heard.iso().substr(0, 16))),
                              tr("Take it over")))
    return openBook(path, true);
  if (desk.isReadOnly())
    m_window.say(tr("Read only: %1").arg(QString::fromStdString(desk.book().readOnlyWords())));
  return true;
}

bool BookActions::openAnything(const QString& path) {
  if (const QFileInfo info(path); info.exists() && !info.isFile()) {
    m_window.prompts().trouble(tr("%1 is no file.").arg(QDir::toNativeSeparators(path)));
    return false;
  }
  if (book::looksLikeBook(path.toStdString()) || path.endsWith(".butte")) return openBook(path);
  if (path.endsWith(".csv", Qt::CaseInsensitive) || path.endsWith(".txt", Qt::CaseInsensitive))
    return importTableFrom(path);
  if (path.endsWith(".tsv", Qt::CaseInsensitive) || path.endsWith(".tab", Qt::CaseInsensitive))
    return importTableFrom(path);
  QFile file(path);
  if (file.open(QIODevice::ReadOnly) && scan::isPaper(file.peek(4096))) {
    m_window.openReport(path);
    return true;
  }
  if (file.isOpen() && file.read(200).contains("\"butte-book\""))
    return bookFromJsonFile(path, path + ".butte");
  return m_window.files().openFile(path);
}

void BookActions::makeBook() {
  const auto name = m_window.prompts().words(tr("New book"), tr("Name of the farm or place:"), {});
  if (name.isEmpty()) return;
  auto path = m_window.prompts().fileToMake(
      tr("Where to keep the book"), QDir::homePath() + "/" + QString(name).replace('/', '-') + ".butte",
      bookFilter());
  if (path.isEmpty()) return;
  if (!path.endsWith(".butte")) path += ".butte";
  if (tell(m_window.desk().createBook(path, name), tr("The book was not made."))) m_window.showFirstStart();
}

void BookActions::openSample() {
  if (tell(m_window.desk().openSample(), tr("The sample can't be opened.")))
    m_window.showStation(Station::Formula);
}

void BookActions::startSampleAfresh() {
  if (m_window.prompts().goOn(
          tr("Sample book afresh"),
          tr("What was tried in the sample book goes away; your own books stay as they are."),
          tr("Start afresh")))
    tell(m_window.desk().openSample(true), tr("The sample can't be opened."));
}

void BookActions::lookAgain() {
  auto& desk = m_window.desk();
  if (desk.isReadOnly())
    openBook(desk.path());
  else
    m_window.say(tr("Nothing to refresh: this window writes the book itself."));
}

void BookActions::writeJson() {
  const auto path = m_window.prompts().fileToMake(tr("Whole book into one file"),
                                                  m_window.desk().path() + ".json", jsonFilter());
  if (!path.isEmpty()) writeJsonTo(path);
}

bool BookActions::writeJsonTo(const QString& path) {
  if (!tell(book::writeBookJson(m_window.desk().book().store(), path.toStdString()), tr("Not written.")))
    return false;
  m_window.say(tr("The whole book is in %1").arg(QDir::toNativeSeparators(path)));
  return true;
}

void BookActions::bookFromJson() {
  const auto source =
      m_window.prompts().fileToOpen(tr("A whole book as JSON"), QDir::homePath(), jsonFilter());
  if (source.isEmpty()) return;
  auto target =
      m_window.prompts().fileToMake(tr("Where to keep the new book"), source + ".butte", bookFilter());
  if (target.isEmpty()) return;
  if (!target.endsWith(".butte")) target += ".butte";
  bookFromJsonFile(source, target);
}

bool BookActions::bookFromJsonFile(const QString& source, const QString& target) {
  if (QFile::exists(target)) {
    m_window.prompts().trouble(
        tr("%1 is there already; nothing was done.").arg(QDir::toNativeSeparators(target)));
    return false;
  }
  std::ifstream text;
  if (QFileInfo(source).isFile()) text.open(source.toStdString(), std::ios::binary);
  if (!text.is_open()) {
    m_window.prompts().trouble(tr("%1 can't be read.").arg(QDir::toNativeSeparators(source)));
    return false;
  }
  return tell(book::readBookJson(text, target.toStdString()), tr("No book was made.")) && openBook(target);
}

void BookActions::importTable() {
  const auto path = m_window.prompts().fileToOpen(tr("Bring in a table"), QDir::homePath(), tableFilter());
  if (!path.isEmpty()) importTableFrom(path);
}

bool BookActions::importTableFrom(const QString& path) {
  const auto name = QFileInfo(path).fileName();
  if (const QFileInfo info(path); info.exists() && !info.isFile()) {
    m_window.prompts().trouble(tr("%1 is no file.").arg(QDir::toNativeSeparators(path)));
    return false;
  }
  QFile file(path);
  if (!file.open(QIODevice::ReadOnly) || file.size() > largestTable) {
    m_window.prompts().trouble(name + (file.isOpen() ? tr(" is larger than 64 MB; split it.")
                                                     : tr(" can't be read: %1").arg(file.errorString())));
    return false;
  }
  return importTableText(name, file.readAll().toStdString());
}

void BookActions::pasteTable() {
  const auto text = QApplication::clipboard()->text();
  if (text.trimmed().isEmpty()) return m_window.prompts().trouble(tr("There is no table on the clipboard."));
  importTableText(tr("the clipboard"), text.toStdString());
}

/// A long one is read behind the window's thread.
bool BookActions::importTableText(const QString& name, std::string bytes) {
  constexpr std::size_t readAtOnce = 500000; // bytes: what a tenth of a second reads
  if (bytes.size() <= readAtOnce) return bringIn(name, reading::readForeignTable(bytes));
  m_window.say(tr("%1 is being read…").arg(name));
  using Read = core::Result<reading::ForeignTable>;
  m_background.start<Read>([bytes = std::move(bytes)] { return reading::readForeignTable(bytes); },
                           [this, name](Read table) { bringIn(name, std::move(table)); });
  return true;
}

bool BookActions::bringIn(const QString& name, core::Result<reading::ForeignTable> table) {
  if (!table) return tell(table.problem(), tr("%1 was not brought in; the book stays as it is.").arg(name));
  auto mapping = reading::proposedMapping(*table);
  constexpr std::size_t fewRows = 2000;
  if (table->rows.size() <= fewRows && reading::isOwnTable(*table, mapping))
    return askAboutOwn(name, *table, mapping);
  auto* sheet =
      new TableSheet(m_window.desk(), name, std::move(table).value(), std::move(mapping), &m_window);
  connect(sheet, &TableSheet::taken, this, [this, name](std::size_t rows) { sayTaken(name, rows); });
  connect(sheet, &TableSheet::message, &m_window, &MainWindow::say);
  sheet->open();
  return true;
}

bool BookActions::askAboutOwn(const QString& name, const reading::ForeignTable& table,
                              const reading::TableMapping& mapping) {
  auto plan = book::planImport(m_window.desk().book().store(), table, mapping);
  if (!plan) return tell(plan.problem(), tr("%1 was not brought in; the book stays as it is.").arg(name));
  QStringList lines{tr("%1: %2. Rows that would be taken: %3, that would not: %4.")
                        .arg(name, QString::fromStdString(book::aboutTable(table, mapping)))
                        .arg(plan->taken)
                        .arg(plan->rows.size() - plan->taken)};
  int shown = 0;
  for (const auto& row : plan->rows) {
    if (!row.taken && ++shown <= rowsShown)
      lines << tr("row %1, not taken: %2")
                   .arg(row.line)
                   .arg(QString::fromStdString(words::rowText(row.saying)));
  }
  if (shown > rowsShown) lines << tr("… and %1 more not taken").arg(shown - rowsShown);
  int takenShown = 0;
  for (const auto& row : plan->rows) {
    if (row.taken && ++takenShown <= rowsShown)
      lines << tr("row %1: %2").arg(row.line).arg(QString::fromStdString(words::rowText(row.saying)));
  }
  if (plan->taken == 0) {
    m_window.prompts().trouble(lines.join('\n'));
    return false;
  }
  if (!m_window.prompts().goOn(tr("Bring in %1").arg(name), lines.join('\n'),
                               counted(plan->taken, tr("Take %1 row"), tr("Take %1 rows"))))
    return false;
  if (!tell(book::import(m_window.desk().book(), *plan, name.toStdString()), tr("Nothing was brought in.")))
    return false;
  sayTaken(name, plan->taken);
  return true;
}

void BookActions::sayTaken(const QString& name, std::size_t rows) {
  m_window.say(counted(rows, tr("%1 row of %2 is in the book; Ctrl+Z takes it out again."),
                       tr("%1 rows of %2 are in the book; Ctrl+Z takes them out again."))
                   .arg(name));
}

void BookActions::exportTable(Kind kind) {
  auto path = m_window.prompts().fileToMake(
      tr("Write a table"),
      QDir::homePath() + "/" + QString::fromStdString(std::string(book::code(kind))) + "s.csv",
      tableFilter());
  if (path.isEmpty()) return;
  if (!path.contains('.')) path += ".csv";
  exportTableTo(kind, path, m_decimalComma->isChecked());
}

bool BookActions::exportTableTo(Kind kind, const QString& path, bool decimalComma) {
  if (!tell(book::writeTable(m_window.desk().book().store(), kind, path.toStdString(), decimalComma,
                             m_window.units().measures()),
            tr("Not written.")))
    return false;
  m_window.say(tr("The table is in %1").arg(QDir::toNativeSeparators(path)));
  return true;
}

void BookActions::fillRecent() {
  m_recent->clear();
  for (const auto& path : m_window.desk().recentBooks())
    m_recent->addAction(QDir::toNativeSeparators(path), this, [this, path] { openBook(path); });
  if (m_recent->isEmpty()) m_recent->addAction(tr("none yet"))->setEnabled(false);
}

void BookActions::copyDaily() {
  auto& desk = m_window.desk();
  if (desk.isOpen() && !desk.isReadOnly() && !desk.isSample()) book::copyDailyBehind(desk.book(), &desk);
}

} // namespace butte::app
