#include "document/book_desk.h"

#include "book/book_json.h"
#include "book/open_book.h"
#include "document/edit_log.h"
#include "document/formula_editor.h"
#include "formula_json.h"
#include "wording/tr.h"
#include "words.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QStandardPaths>
#include <QTime>

#include <tuple>

namespace butte::app {

using book::Kind;
using book::Ref;
using exchange::Json;

namespace {
core::Problem notInTheBook() {
  return core::problemAt(core::ProblemCode::MissingKey, "book", {"it is not in the book; look into the bin"});
}

constexpr int mostRecent = 8;
QString wordsOf(const core::Problem& problem) {
  return QString::fromStdString(words::problemText(problem));
}
} // namespace

BookDesk::BookDesk(FormulaEditor& editor, QSettings& settings, QString dataFolder, QObject* parent)
    : QObject(parent), m_editor(editor), m_settings(settings), m_dataFolder(std::move(dataFolder)) {
  // Private copies that an earlier run had no time to clear away.
  QDir snapshots(m_dataFolder + "/snapshots");
  for (const auto& old : snapshots.entryInfoList({"snapshot-*"}, QDir::Files)) {
    if (old.lastModified().secsTo(QDateTime::currentDateTime()) > 86400) QFile::remove(old.filePath());
  }
}

BookDesk::~BookDesk() {
  m_editor.letGo();
  if (m_book) m_book->disconnect(this);
}

QString BookDesk::path() const {
  return m_book ? QString::fromStdString(m_book->place()) : QString();
}

QString BookDesk::firstBookPath() const {
  return m_dataFolder + "/farm.butte";
}

book::Trouble BookDesk::openBook(const QString& path, bool takeOver) {
  if (m_book && QFileInfo(path) == QFileInfo(this->path()) && !m_book->isReadOnly()) return std::nullopt;
  auto opened = book::openBook(path.toStdString(), (m_dataFolder + "/snapshots").toStdString(), takeOver);
  if (!opened) return opened.problem();
  remember(path);
  return take(std::move(opened).value());
}

book::Trouble BookDesk::createBook(const QString& path, const QString& farm) {
  if (auto trouble = createBookAside(path, farm)) return trouble;
  remember(path);
  return std::nullopt;
}

core::Problem noBookOpen() {
  return core::problemAt(core::ProblemCode::BadFile, "book", {"no book is open"});
}

book::Trouble BookDesk::createBookAside(const QString& path, const QString& farm) {
  auto made = book::createBook(path.toStdString(), farm.toStdString());
  if (!made) return made.problem();
  return take(std::move(made).value());
}

book::Trouble BookDesk::openSample(bool afresh) {
  const auto path = m_dataFolder + "/Ormsey Glass (sample).butte";
  if (m_book && this->path() == path) {
    if (!afresh) return std::nullopt;
    m_editor.letGo();
    emit bookClosing();
    m_book.reset();
  }
  if (afresh || !QFile::exists(path)) {
    QFile source(":/demo/ormsey-book.json");
    if (!source.open(QIODevice::ReadOnly))
      return core::problemAt(core::ProblemCode::BadFile, "sample",
                             {"the sample is missing from the program"});
    for (const auto* ending : {"", "-wal", "-shm"})
      QFile::remove(path + ending);
    if (auto trouble =
            book::readBookJson(source.readAll().toStdString(), path.toStdString(), {.shiftToToday = true}))
      return trouble;
  }
  auto opened = book::openBook(path.toStdString(), (m_dataFolder + "/snapshots").toStdString());
  if (!opened) return opened.problem();
  return take(std::move(opened).value());
}

book::Trouble BookDesk::reopenAfter(const std::function<book::Trouble(const QString&)>& between) {
  const auto path = this->path();
  if (m_book) emit bookClosing();
  m_editor.letGo();
  m_book.reset();
  const auto trouble = between(path);
  auto opened = book::openBook(path.toStdString(), (m_dataFolder + "/snapshots").toStdString());
  if (!opened) return opened.problem();
  if (auto problem = take(std::move(opened).value())) return problem;
  return trouble;
}

book::Trouble BookDesk::take(std::unique_ptr<book::Book> opened) {
  if (m_book) emit bookClosing();
  m_editor.letGo();
  m_book = std::move(opened);
  m_sample = m_book->isSample();
  m_book->setWho(initials().toStdString());
  connect(m_book.get(), &book::Book::changed, this, &BookDesk::onChanged);
  connect(m_book.get(), &book::Book::kept, this, [this] {
    emit keepingChanged(tr("kept %1").arg(QTime::currentTime().toString("HH:mm:ss")), false);
  });
  connect(m_book.get(), &book::Book::gathering, this, [this] { emit keepingChanged(tr("keeping…"), false); });
  connect(m_book.get(), &book::Book::troubled, this, [this](const core::Problem& problem) {
    emit keepingChanged(tr("NOT KEPT: %1").arg(wordsOf(problem)), true);
  });
  connect(m_book.get(), &book::Book::copyNotMade, this, [this](const core::Problem& problem) {
    emit message(tr("Today's copy of the book was not made: %1").arg(wordsOf(problem)));
  });
  bool allKept = true; // taking a formula in hand writes too: what could not be kept stays said
  const auto watch = connect(m_book.get(), &book::Book::troubled, this,
                             [&allKept](const core::Problem&) { allKept = false; });
  takeSomeFormula();
  disconnect(watch);
  if (m_book->isReadOnly())
    emit keepingChanged(tr("read only: %1").arg(QString::fromStdString(m_book->readOnlyWords())), true);
  else if (allKept)
    emit keepingChanged(tr("all kept"), false);
  emit bookOpened();
  return std::nullopt;
}

bool BookDesk::takeLastFormula() {
  const auto last = m_book->store().meta("in_hand");
  if (last && *last) {
    const Ref ref{Kind::Formula, **last};
    const auto record = m_book->record(ref);
    if (record && *record && !(*record)->binnedAt && !openFormula(ref)) return true;
  }
  const auto all = m_book->store().list(Kind::Formula, false);
  if (all && !all->empty()) {
    const auto newest = std::max_element(
        all->begin(), all->end(), [](const auto& a, const auto& b) { return a.changedAt < b.changedAt; });
    if (!openFormula(newest->ref)) return true;
  }
  return false;
}

void BookDesk::takeSomeFormula() {
  if (!m_nothingInHand && takeLastFormula()) return;
  // A page to begin on. It is no step of a person's, so nothing that can be done again is lost.
  const auto fresh = book::freshRef(Kind::Formula);
  const bool put = !m_book->isReadOnly() &&
                   !m_book->store().write({fresh, exchange::emptyFormula(), {}}, book::Moment::now());
  if (!put || openFormula(fresh)) m_editor.load(exchange::emptyFormula());
}

book::Trouble BookDesk::openFormula(const Ref& ref) {
  const auto record = m_book->record(ref);
  if (!record) return record.problem();
  if (!*record || (*record)->binnedAt) return notInTheBook();
  m_inHand = ref;
  if (!m_editor.bind((*record)->body, std::make_unique<BookLog>(*m_book, ref)))
    return core::problemAt(core::ProblemCode::BadJson, "formula", {"the formula does not read"});
  if (!m_book->isReadOnly())
    std::ignore = m_book->store().setMeta("in_hand", ref.uid); // decides no more than what opens next time
  emit changed({ref});
  return std::nullopt;
}

book::Trouble BookDesk::addFormula(Json json, const core::Deed& deed) {
  exchange::keepShippedFigures(json);
  const auto ref = m_book->create(Kind::Formula, json, deed);
  if (!ref) return ref.problem();
  return openFormula(*ref);
}

core::Result<exchange::FormulaDocument> BookDesk::formula(const std::string& uid) {
  const auto record = m_book->record({Kind::Formula, uid});
  if (!record) return record.problem();
  if (!*record) return notInTheBook();
  return exchange::readFormulaDocument((*record)->body);
}

core::Result<exchange::FormulaDocument> BookDesk::versionInHand(int number) {
  const auto version = m_book->store().version(m_inHand.uid, number);
  if (!version) return version.problem();
  if (!*version) return notInTheBook();
  return exchange::readFormulaDocument((*version)->body);
}

core::Result<int> BookDesk::makeVersion(const QString& why, const QString& name) {
  return m_book->makeVersion(m_inHand, why.toStdString(), name.toStdString());
}

void BookDesk::onChanged(const std::vector<Ref>& refs) {
  if (!m_editor.isApplying() && std::find(refs.begin(), refs.end(), m_inHand) != refs.end()) {
    const auto record = m_book->record(m_inHand);
    if (record && *record && !(*record)->binnedAt)
      m_editor.refresh((*record)->body);
    else
      takeSomeFormula();
  } else if (m_editor.isApplying() && std::find(refs.begin(), refs.end(), m_inHand) == refs.end()) {
    // A step was taken back in another formula: there it is shown.
    for (const auto& ref : refs) {
      if (ref.kind != Kind::Formula) continue;
      QMetaObject::invokeMethod(
          this,
          [this, ref] {
            if (const auto trouble = openFormula(ref)) emit message(wordsOf(*trouble));
          },
          Qt::QueuedConnection);
      break;
    }
  } else if (m_editor.isApplying()) {
    // Its own creation was taken back: the formula in hand lies in the bin now.
    QMetaObject::invokeMethod(
        this,
        [this] {
          if (!m_book || m_book->isWaiting()) return;
          const auto record = m_book->record(m_inHand);
          if (record && *record && (*record)->binnedAt) takeSomeFormula();
        },
        Qt::QueuedConnection);
  }
  emit changed(refs);
}

QString BookDesk::initials() const {
  return m_settings.value("book/initials").toString();
}

void BookDesk::setInitials(const QString& initials) {
  m_settings.setValue("book/initials", initials);
  if (m_book) m_book->setWho(initials.toStdString());
}

QStringList BookDesk::recentBooks() const {
  return m_settings.value("book/recent").toStringList();
}

void BookDesk::remember(const QString& path) {
  auto books = recentBooks();
  const auto whole = QFileInfo(path).absoluteFilePath();
  books.removeAll(whole);
  books.prepend(whole);
  while (books.size() > mostRecent)
    books.removeLast();
  m_settings.setValue("book/recent", books);
}

} // namespace butte::app
