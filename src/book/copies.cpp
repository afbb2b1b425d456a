#include "copies.h"

#include "kinds/kind_info.h"
#include "open_store.h"
#include "private_files.h"

#include <QDate>
#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QPointer>
#include <QTemporaryDir>
#include <QThread>
#include <algorithm>
#include <map>
#include <set>

namespace butte::book {

using core::problemAt;
using core::ProblemCode;

namespace {

QString qpath(const std::string& text) {
  return QString::fromStdString(text);
}

/// A name that is still free: "2026-03-02T071500Z daily.butte".
QString freePath(const std::string& bookPath, Moment at, const std::string& why) {
  for (;; ++at.seconds) {
    const auto path =
        qpath(copiesFolder(bookPath)) + "/" + qpath(at.iso()).remove(':') + " " + qpath(why) + ".butte";
    if (!QFile::exists(path)) return path;
  }
}

std::optional<CopyOfBook> copyIn(const QFileInfo& file) {
  const auto name = file.completeBaseName();
  const auto gap = name.indexOf(' ');
  const auto time = QDateTime::fromString(name.left(gap), "yyyy-MM-ddTHHmmssZ");
  if (gap < 0 || !time.isValid()) return std::nullopt;
  const QDateTime utc(time.date(), time.time(), Qt::UTC);
  return CopyOfBook{
      file.filePath().toStdString(), {utc.toSecsSinceEpoch()}, file.size(), name.mid(gap + 1).toStdString()};
}

/// Into a file of its own first, so that a half-made copy never looks like a whole one.
Trouble copyInto(Store& store, const QString& target) {
  makePrivateFolder(QFileInfo(target).absolutePath());
  const auto half = target + ".half";
  QFile::remove(half);
  if (auto trouble = store.copyTo(half.toStdString())) {
    QFile::remove(half);
    return trouble;
  }
  if (!QFile::rename(half, target))
    return problemAt(ProblemCode::BadFile, target.toStdString(), {"the copy can't get its name"});
  return std::nullopt;
}

/// A copy to read. One of an earlier version is brought forward in a private copy of its own; the copy itself
/// stays.
core::Result<std::unique_ptr<Store>> openCopy(const std::string& path, const QTemporaryDir& aside) {
  auto store = openStore(path, OpenFor::Reading);
  if (store || store.problem().code != ProblemCode::BookOlder) return store;
  const auto forward = aside.filePath("forward.butte");
  if (!QFile::copy(qpath(path), forward))
    return problemAt(ProblemCode::BadFile, path, {"it can't be copied"});
  QFile::setPermissions(forward, QFile::ReadOwner | QFile::WriteOwner);
  return openStore(forward.toStdString(), OpenFor::Writing);
}

QDate dayOf(Moment at) {
  return QDateTime::fromSecsSinceEpoch(at.seconds, Qt::UTC).date();
}

using States = std::map<Ref, std::pair<std::string, Json>>; // name, body

Trouble collect(Store& store, Kind kind, States& out) {
  return store.eachRecord(kind, [&](const Record& record, Moment) {
    const auto called = nameIn(kind, record.body);
    const auto name = called.empty() ? std::string("?") : called;
    Json state = record.body;
    if (record.binnedAt) state["x_in_bin"] = true;
    out[record.ref] = {name, std::move(state)};
    return true;
  });
}

} // namespace

std::string copiesFolder(const std::string& bookPath) {
  return bookPath + "-copies";
}

std::vector<CopyOfBook> copiesOf(const std::string& bookPath) {
  std::vector<CopyOfBook> out;
  for (const auto& file : QDir(qpath(copiesFolder(bookPath))).entryInfoList({"*.butte"}, QDir::Files)) {
    if (auto copy = copyIn(file)) out.push_back(std::move(*copy));
  }
  std::sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.at > b.at; });
  return out;
}

core::Result<std::string> makeCopy(Book& book, const std::string& why) {
  const auto target = freePath(book.place(), Moment::now(), why);
  if (auto trouble = copyInto(book.store(), target)) return *trouble;
  return target.toStdString();
}

std::vector<CopyOfBook> tooMany(const std::vector<CopyOfBook>& copies, Moment now) {
  constexpr int daysAll = 7, daysWeekly = 56, daysMonthly = 730;
  auto daily = copies;
  std::erase_if(daily, [](const auto& copy) { return copy.why != "daily"; });
  std::sort(daily.begin(), daily.end(), [](const auto& a, const auto& b) { return a.at > b.at; });
  std::set<std::string> kept;
  std::vector<CopyOfBook> out;
  for (const auto& copy : daily) {
    const auto day = dayOf(copy.at);
    const auto age = day.daysTo(dayOf(now));
    if (age < 0) continue; // made while a clock stood ahead: its date says nothing
    int weekYear = 0;
    const int week = day.weekNumber(&weekYear);
    const QString slot = age <= daysAll       ? "d" + day.toString(Qt::ISODate)
                         : age <= daysWeekly  ? QString("w%1-%2").arg(weekYear).arg(week)
                         : age <= daysMonthly ? "m" + day.toString("yyyy-MM")
                                              : "y" + day.toString("yyyy");
    if (!kept.insert(slot.toStdString()).second) out.push_back(copy);
  }
  return out;
}

Trouble copyDaily(const std::string& bookPath, Moment now) {
  const auto copies = copiesOf(bookPath);
  const bool today = std::any_of(copies.begin(), copies.end(), [&](const auto& copy) {
    return copy.why == "daily" && dayOf(copy.at) == dayOf(now);
  });
  if (!today) {
    auto store = openStore(bookPath, OpenFor::Reading);
    if (!store) return store.problem();
    if (auto trouble = copyInto(**store, freePath(bookPath, now, "daily"))) return trouble;
  }
  // One goes for one that comes: a clock that runs wild for a day costs one copy, not all.
  if (const auto old = tooMany(copiesOf(bookPath), now); !today && !old.empty())
    QFile::remove(qpath(old.back().path));
  return std::nullopt;
}

void copyDailyBehind(Book& book, QObject* owner) {
  auto* thread = QThread::create([path = book.place(), owner, told = QPointer<Book>(&book)] {
    const auto trouble = copyDaily(path, Moment::now());
    if (!trouble) return;
    QMetaObject::invokeMethod(owner, [told, trouble] {
      if (told) emit told->copyNotMade(*trouble);
    });
  });
  thread->setParent(owner);
  QObject::connect(thread, &QThread::finished, thread, &QObject::deleteLater);
  QObject::connect(owner, &QObject::destroyed, thread, [thread] { thread->wait(); });
  thread->start(QThread::LowPriority);
}

namespace {

GoingBack differenceOf(Kind kind, const States& now, const States& then) {
  GoingBack out;
  out.kind = kind;
  for (const auto& [ref, state] : now) {
    const auto old = then.find(ref);
    if (old == then.end())
      out.gone.push_back(state.first);
    else if (old->second.second != state.second)
      out.otherwise.push_back(old->second.first);
  }
  for (const auto& [ref, state] : then) {
    if (!now.contains(ref)) out.back.push_back(state.first);
  }
  return out;
}

} // namespace

core::Result<std::vector<GoingBack>> whatGoingBackChanges(Book& book, const std::string& copyPath) {
  const QTemporaryDir aside;
  auto copy = openCopy(copyPath, aside);
  if (!copy) return copy.problem();
  std::vector<GoingBack> out;
  for (const auto kind : allKinds()) {
    if (!infoOf(kind).isListed) continue;
    States now, then;
    if (auto trouble = collect(book.store(), kind, now)) return *trouble;
    if (auto trouble = collect(**copy, kind, then)) return *trouble;
    out.push_back(differenceOf(kind, now, then));
  }
  const auto readingsNow = book.store().counts();
  const auto readingsThen = (*copy)->counts();
  if (readingsNow && readingsThen)
    out.push_back({Kind::Reading, {}, {}, {}, readingsNow->readings, readingsThen->readings});
  std::erase_if(out, [](const auto& line) {
    return line.gone.empty() && line.otherwise.empty() && line.back.empty() &&
           line.countNow == line.countThen;
  });
  return out;
}

Trouble goBackTo(const std::string& bookPath, const std::string& copyPath) {
  const auto path = qpath(bookPath);
  {
    auto now = openStore(bookPath, OpenFor::Reading);
    // A book that can't be read is kept as it lies.
    const auto kept = freePath(bookPath, Moment::now(), "before going back");
    makePrivateFolder(QFileInfo(kept).absolutePath());
    if (!now)
      copyPrivately(path, kept);
    else if (auto trouble = copyInto(**now, kept))
      return trouble;
  }
  const auto fresh = path + ".going-back";
  QFile::remove(fresh);
  {
    const QTemporaryDir aside;
    auto copy = openCopy(copyPath, aside);
    if (!copy) return copy.problem();
    if (auto trouble = (*copy)->checkWhole()) return trouble;
    if (auto trouble = (*copy)->copyTo(fresh.toStdString())) return trouble;
  }
  for (const auto* ending : {"-wal", "-shm", "-journal"})
    QFile::remove(path + ending); // of the old file: the copy must not be changed by them
  // rename(2) replaces the old file in one step; QFile::rename would refuse.
  if (std::rename(fresh.toStdString().c_str(), bookPath.c_str()) != 0)
    return problemAt(ProblemCode::BadFile, bookPath, {"the copy can't take the book's place"});
  return std::nullopt;
}

} // namespace butte::book
