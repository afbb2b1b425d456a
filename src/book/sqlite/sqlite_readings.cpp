// Readings over time, what Ctrl+K looks through, and the file as a whole.
#include "private_files.h"
#include "sqlite/sqlite_store.h"

#include <algorithm>

// Statements are whole literals; what many of them say stands here once.
#define BUTTE_READING_COLUMNS                                                                                \
  "id, vessel_uid, quantity, at, value, typed, coalesce(import_uid, ''), "                                   \
  "(SELECT name FROM thing WHERE uid = vessel_uid), mark"
/// Neither in the bin itself nor with the import that brought it.
#define BUTTE_READING_COUNTS                                                                                 \
  "binned_at IS NULL AND (import_uid IS NULL OR import_uid NOT IN (SELECT uid FROM thing WHERE "             \
  "kind = 'reading_import' AND binned_at IS NOT NULL))"

namespace butte::book {

using core::problemAt;
using core::ProblemCode;

namespace {

Reading readingOf(const QSqlQuery& row) {
  return {row.value(0).toLongLong(),   plain(row.value(1)),     plain(row.value(2)),
          {row.value(3).toLongLong()}, row.value(4).toDouble(), plain(row.value(5)),
          plain(row.value(6)),         plain(row.value(7)),     plain(row.value(8))};
}

QVariant textOrNull(const std::string& text) {
  return text.empty() ? QVariant(QMetaType::fromType<QString>()) : QVariant(qt(text));
}

/// Words as a person types them, as FTS5 wants them: every word quoted and open at its end. Empty: nothing to
/// look for.
QString findText(const std::string& words) {
  QStringList out;
  QString word;
  for (const auto c : qt(words) + " ") {
    if (c.isLetterOrNumber()) {
      word += c;
      continue;
    }
    if (!word.isEmpty()) out << "\"" + word + "\"*";
    word.clear();
  }
  return out.join(' ');
}

} // namespace

Trouble SqliteStore::writeReading(const Record& record) {
  bool isNumber = false;
  const auto number = qt(record.ref.uid).toLongLong(&isNumber);
  const auto& b = record.body;
  const auto at = Moment::fromIso(b.value("at", ""));
  if (!isNumber || !at)
    return problemAt(ProblemCode::OutOfRange, "at",
                     {b.value("at", ""), "a date and time such as 2026-03-02T07:15:00Z"});
  return m_db->run(
      "INSERT INTO reading (id, vessel_uid, quantity, at, value, typed, import_uid, mark, binned_at) VALUES "
      "(?, ?, ?, ?, ?, ?, ?, ?, ?) "
      "ON CONFLICT (id) DO UPDATE SET vessel_uid = excluded.vessel_uid, quantity = excluded.quantity, at = "
      "excluded.at, value = excluded.value, "
      "typed = excluded.typed, mark = excluded.mark, binned_at = excluded.binned_at",
      {number, qt(b.value("vessel", "")), qt(b.value("quantity", "")), static_cast<qlonglong>(at->seconds),
       b.value("value", 0.0), qt(b.value("typed", "")), textOrNull(b.value("import", "")),
       qt(b.value("mark", "")), orNull(record.binnedAt)});
}

core::Result<std::optional<Record>> SqliteStore::readReading(const std::string& uid) {
  std::optional<Record> out;
  if (auto trouble = m_db->each("SELECT " BUTTE_READING_COLUMNS ", binned_at FROM reading WHERE id = ?",
                                {qt(uid).toLongLong()}, [&](const QSqlQuery& row) {
                                  const auto r = readingOf(row);
                                  fill(out, {Kind::Reading, uid}, toJson(r), momentOf(row.value(9)));
                                  return false;
                                }))
    return *trouble;
  return out;
}

Trouble SqliteStore::addReadings(const std::vector<Reading>& readings) {
  for (const auto& r : readings) {
    const auto number = r.number > 0 ? QVariant(static_cast<qlonglong>(r.number))
                                     : QVariant(QMetaType::fromType<qlonglong>());
    if (auto trouble =
            m_db->run("INSERT INTO reading (id, vessel_uid, quantity, at, value, typed, import_uid, mark) "
                      "VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
                      {number, qt(r.vesselUid), qt(r.quantity), static_cast<qlonglong>(r.at.seconds), r.value,
                       qt(r.typed), textOrNull(r.importUid), qt(r.mark)}))
      return trouble;
  }
  return std::nullopt;
}

core::Result<std::vector<Reading>> SqliteStore::readings(const std::optional<Reading>& after, int most,
                                                         const ReadingFilter& f) {
  std::vector<Reading> out;
  const QVariant doubted =
      f.doubted ? QVariant(*f.doubted ? 1 : 0) : QVariant(QMetaType::fromType<qlonglong>());
  const auto seconds = static_cast<qlonglong>(after ? after->at.seconds : INT64_MAX);
  const auto number = static_cast<qlonglong>(after ? after->number : INT64_MAX);
  const auto take = [&](const QSqlQuery& row) {
    out.push_back(readingOf(row));
    return true;
  };
  // One vessel's quantity is found by its index, whatever else the book holds; and what is doubted by its
  // own.
  const bool byIndex = !f.vesselUid.empty() && !f.quantity.empty();
  const auto any = [&]() -> Trouble {
    return m_db->each("SELECT " BUTTE_READING_COLUMNS " FROM reading WHERE " BUTTE_READING_COUNTS
                      " AND vessel_uid = coalesce(?, vessel_uid) AND quantity = coalesce(?, quantity) "
                      "AND at >= coalesce(?, at) AND at < coalesce(?, at + 1) "
                      "AND (mark <> '') = coalesce(?, mark <> '') AND (at, id) < (?, ?) "
                      "ORDER BY at DESC, id DESC LIMIT ?",
                      {textOrNull(f.vesselUid), textOrNull(f.quantity), orNull(f.from), orNull(f.before),
                       doubted, seconds, number, most},
                      take);
  };
  const auto ofVessel = [&]() -> Trouble {
    return m_db->each("SELECT " BUTTE_READING_COLUMNS " FROM reading WHERE vessel_uid = ? AND quantity = ? "
                      "AND at >= coalesce(?, at) AND at < coalesce(?, at + 1) AND " BUTTE_READING_COUNTS
                      " AND (mark <> '') = coalesce(?, mark <> '') AND at <= ? AND (at, id) < (?, ?) "
                      "ORDER BY at DESC, id DESC LIMIT ?",
                      {qt(f.vesselUid), qt(f.quantity), orNull(f.from), orNull(f.before), doubted, seconds,
                       seconds, number, most},
                      take);
  };
  const auto doubtedOfVessel = [&]() -> Trouble {
    return m_db->each(
        "SELECT " BUTTE_READING_COLUMNS " FROM reading WHERE vessel_uid = ? AND quantity = ? "
        "AND mark <> '' AND at >= coalesce(?, at) AND at < coalesce(?, at + 1) AND " BUTTE_READING_COUNTS
        " AND (at, id) < (?, ?) ORDER BY at DESC, id DESC LIMIT ?",
        {qt(f.vesselUid), qt(f.quantity), orNull(f.from), orNull(f.before), seconds, number, most}, take);
  };
  const auto trouble = !byIndex ? any() : f.doubted.value_or(false) ? doubtedOfVessel() : ofVessel();
  if (trouble) return *trouble;
  return out;
}

core::Result<std::vector<ReadingBucket>> SqliteStore::readingBuckets(const ReadingFilter& f,
                                                                     std::int64_t width) {
  std::vector<ReadingBucket> out;
  const auto take = [&](const QSqlQuery& row) {
    out.push_back({plain(row.value(0)), row.value(1).toLongLong(), row.value(2).toInt(),
                   row.value(3).toDouble(), row.value(4).toDouble(), row.value(5).toDouble()});
    return true;
  };
  const auto seconds = static_cast<qlonglong>(width);
  const bool byIndex = !f.vesselUid.empty() && !f.quantity.empty();
  const auto trouble =
      byIndex
          ? m_db->each("SELECT vessel_uid, at / ?, count(*), min(value), max(value), avg(value) FROM reading "
                       "WHERE vessel_uid = ? AND quantity = ? AND at >= ? AND at < ? AND mark = '' "
                       "AND " BUTTE_READING_COUNTS " GROUP BY 1, 2 ORDER BY 1, 2",
                       {seconds, qt(f.vesselUid), qt(f.quantity),
                        static_cast<qlonglong>(f.from ? f.from->seconds : INT64_MIN),
                        static_cast<qlonglong>(f.before ? f.before->seconds : INT64_MAX)},
                       take)
          : m_db->each(
                "SELECT vessel_uid, at / ?, count(*), min(value), max(value), avg(value) FROM reading "
                "WHERE " BUTTE_READING_COUNTS " AND mark = '' AND vessel_uid = coalesce(?, vessel_uid) "
                "AND quantity = coalesce(?, quantity) AND at >= coalesce(?, at) "
                "AND at < coalesce(?, at + 1) GROUP BY 1, 2 ORDER BY 1, 2",
                {seconds, textOrNull(f.vesselUid), textOrNull(f.quantity), orNull(f.from), orNull(f.before)},
                take);
  if (trouble) return *trouble;
  return out;
}

// From one stretch to the one before it, each found by the index: what lies between is never read.
core::Result<std::vector<Reading>> SqliteStore::lastOfEach(const ReadingFilter& f, std::int64_t width) {
  std::vector<Reading> out;
  auto before = f.before ? f.before->seconds : INT64_MAX;
  const auto from = f.from ? f.from->seconds : INT64_MIN;
  for (bool found = true; found;) {
    found = false;
    if (auto trouble = m_db->each(
            "SELECT " BUTTE_READING_COLUMNS " FROM reading WHERE vessel_uid = ? AND quantity = ? AND at < ? "
            "AND at >= ? AND mark = '' AND " BUTTE_READING_COUNTS " ORDER BY at DESC LIMIT 1",
            {qt(f.vesselUid), qt(f.quantity), static_cast<qlonglong>(before), static_cast<qlonglong>(from)},
            [&](const QSqlQuery& row) {
              out.push_back(readingOf(row));
              found = true;
              return false;
            }))
      return *trouble;
    if (found) before = out.back().at.seconds - out.back().at.seconds % width;
  }
  std::reverse(out.begin(), out.end());
  return out;
}

core::Result<std::int64_t> SqliteStore::nextReadingNumber() {
  const auto newest = m_db->single("SELECT coalesce(max(id), 0) + 1 FROM reading");
  if (!newest) return newest.problem();
  return static_cast<std::int64_t>(newest->toLongLong());
}

core::Result<bool> SqliteStore::hasReading(const Reading& r) {
  const auto found = m_db->single(
      "SELECT 1 FROM reading WHERE vessel_uid = ? AND quantity = ? AND at = ? AND " BUTTE_READING_COUNTS
      " LIMIT 1",
      {qt(r.vesselUid), qt(r.quantity), static_cast<qlonglong>(r.at.seconds)});
  if (!found) return found.problem();
  return found->isValid();
}

core::Result<std::vector<Hit>> SqliteStore::search(const std::string& words, int mostOfEach) {
  std::vector<Hit> out;
  const auto text = findText(words);
  if (text.isEmpty()) return out;
  const auto thing = [&](const QSqlQuery& row) {
    out.push_back({{kindFromCode(plain(row.value(0))).value_or(Kind::Formula), plain(row.value(1))},
                   plain(row.value(2)),
                   plain(row.value(3))});
    return true;
  };
  if (auto trouble = m_db->each(
          "SELECT kind, uid, name, crop FROM find_thing JOIN thing ON thing.id = find_thing.rowid "
          "WHERE find_thing MATCH ? AND kind <> 'reading_import' ORDER BY find_thing.rowid DESC LIMIT ?",
          {text, mostOfEach}, thing))
    return *trouble;
  if (auto trouble = m_db->each(
          "SELECT 'batch', uid, formula_name, strftime('%Y-%m-%d', at, 'unixepoch') FROM find_batch "
          "JOIN batch ON batch.id = find_batch.rowid WHERE find_batch MATCH ? ORDER BY find_batch.rowid DESC "
          "LIMIT ?",
          {text, mostOfEach}, thing))
    return *trouble;
  return out;
}

core::Result<Counts> SqliteStore::counts() {
  Counts out;
  if (auto trouble = m_db->each(
          "SELECT (SELECT count(*) FROM thing WHERE kind <> 'reading_import'), (SELECT count(*) FROM batch), "
          "(SELECT count(*) FROM reading), (SELECT count(*) FROM version), (SELECT count(*) FROM step)",
          {}, [&](const QSqlQuery& row) {
            out = {row.value(0).toLongLong(), row.value(1).toLongLong(), row.value(2).toLongLong(),
                   row.value(3).toLongLong(), row.value(4).toLongLong()};
            return false;
          }))
    return *trouble;
  return out;
}

Trouble SqliteStore::eachReading(const std::function<bool(const Reading&, std::optional<Moment>)>& visit) {
  return m_db->each(
      "SELECT id, vessel_uid, quantity, at, value, typed, coalesce(import_uid, ''), "
      "(SELECT name FROM thing WHERE uid = vessel_uid), mark, binned_at FROM reading ORDER BY id",
      {}, [&](const QSqlQuery& row) { return visit(readingOf(row), momentOf(row.value(9))); });
}

Trouble SqliteStore::copyTo(const std::string& path) {
  makePrivateFile(qt(path)); // where it can't be made the copy can't either, and says why
  return m_db->run("VACUUM INTO ?", {qt(path)});
}

Trouble SqliteStore::checkWhole() {
  std::string said;
  if (auto trouble = m_db->each("PRAGMA integrity_check(5)", {}, [&](const QSqlQuery& row) {
        if (row.value(0).toString() != "ok") said += (said.empty() ? "" : "; ") + plain(row.value(0));
        return true;
      }))
    return trouble;
  if (auto trouble = m_db->each("PRAGMA foreign_key_check", {}, [&](const QSqlQuery& row) {
        said += "; a row of " + plain(row.value(0)) + " points to nothing";
        return said.size() < 500;
      }))
    return trouble;
  if (!said.empty()) return damaged(said);
  return std::nullopt;
}

} // namespace butte::book
