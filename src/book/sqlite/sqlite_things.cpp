// Records of the typed kinds, their versions, and the steps.
#include "kinds/kind_info.h"
#include "sqlite/sqlite_store.h"
#include "step_check.h"

#include <QSqlError>

#include <tuple>

namespace butte::book {

using core::problemAt;
using core::ProblemCode;

QVariant orNull(const std::optional<Moment>& moment) {
  return moment ? QVariant(static_cast<qlonglong>(moment->seconds))
                : QVariant(QMetaType::fromType<qlonglong>());
}
QVariant orNull(const std::optional<double>& value) {
  return value ? QVariant(*value) : QVariant(QMetaType::fromType<double>());
}
std::optional<Moment> momentOf(const QVariant& value) {
  return value.isNull() ? std::nullopt : std::optional(Moment{value.toLongLong()});
}
std::optional<double> numberOf(const QVariant& value) {
  return value.isNull() ? std::nullopt : std::optional(value.toDouble());
}

namespace {

QVariant stamp(Moment at) {
  return static_cast<qlonglong>(at.seconds);
}
QString dumped(const Json& json) {
  return QString::fromStdString(json.dump(-1, ' ', false, Json::error_handler_t::replace));
}
QString textIn(const Json& body, const char* key) {
  const auto it = body.find(key);
  return it != body.end() && it->is_string() ? qt(it->get<std::string>()) : QString("");
}
QString kindText(Kind kind) {
  return QString::fromUtf8(code(kind).data(), static_cast<qsizetype>(code(kind).size()));
}

RecordHead headOf(const QSqlQuery& row) {
  RecordHead head;
  head.ref = {kindFromCode(plain(row.value(0))).value_or(Kind::Formula), plain(row.value(1))};
  head.name = plain(row.value(2));
  head.crop = plain(row.value(3));
  head.changedAt = {row.value(4).toLongLong()};
  head.binnedAt = momentOf(row.value(5));
  return head;
}

Json changesJson(const Step& step) {
  Json out = Json::array();
  for (const auto& c : step.changes)
    out.push_back({{"kind", code(c.ref.kind)},
                   {"uid", c.ref.uid},
                   {"pointer", c.pointer},
                   {"before", c.before},
                   {"after", c.after}});
  return out;
}

/// kind, uid ... as changesJson() wrote them; nothing when the row was damaged.
std::optional<Step> stepOf(const QSqlQuery& row) {
  Step step{row.value(0).toLongLong(), {row.value(1).toLongLong()},
            plain(row.value(2)),       core::deedFromLine(plain(row.value(3))),
            plain(row.value(4)),       {}};
  const auto changes = exchange::parsedOrNothing(plain(row.value(5)));
  if (!changes.is_array()) return std::nullopt;
  for (const auto& c : changes) {
    if (!c.is_object() || !c.contains("kind") || !c["kind"].is_string() || !c.contains("uid") ||
        !c["uid"].is_string() || !c.contains("pointer") || !c["pointer"].is_string())
      return std::nullopt;
    const auto kind = kindFromCode(c["kind"].get<std::string>());
    if (!kind) return std::nullopt;
    step.changes.push_back({{*kind, c["uid"].get<std::string>()},
                            c["pointer"].get<std::string>(),
                            c.value("before", Json()),
                            c.value("after", Json())});
  }
  if (checkStep(step)) return std::nullopt;
  return step;
}

std::optional<Version> versionOf(const QSqlQuery& row) {
  Version v{plain(row.value(0)),
            row.value(1).toInt(),
            {row.value(2).toLongLong()},
            plain(row.value(3)),
            plain(row.value(4)),
            plain(row.value(5)),
            core::changesFromLines(plain(row.value(6))),
            exchange::parsedOrNothing(plain(row.value(7)))};
  if (v.body.is_discarded()) return std::nullopt;
  return v;
}

} // namespace

core::Problem SqliteStore::damaged(const std::string& what) const {
  return problemAt(ProblemCode::BookDamaged, m_db->path().toStdString(), {what});
}

Trouble SqliteStore::begin() {
  if (auto trouble = m_db->run("BEGIN IMMEDIATE")) return trouble;
  if (m_db->isStillThere()) return std::nullopt;
  rollback();
  return problemAt(ProblemCode::BookNotWritable, m_db->path().toStdString(),
                   {"another file is in its place, or it is gone"});
}
Trouble SqliteStore::commit() {
  return m_db->run("COMMIT");
}
void SqliteStore::rollback() {
  std::ignore = m_db->run("ROLLBACK"); // what led here is what is told
}

core::Result<std::optional<std::string>> SqliteStore::meta(const std::string& key) {
  const auto value = m_db->single("SELECT value FROM meta WHERE key = ?", {qt(key)});
  if (!value) return value.problem();
  return value->isValid() ? std::optional(plain(*value)) : std::nullopt;
}

Trouble SqliteStore::setMeta(const std::string& key, const std::string& value) {
  return m_db->run(
      "INSERT INTO meta (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value",
      {qt(key), qt(value)});
}

core::Result<std::optional<Record>> SqliteStore::read(const Ref& ref) {
  switch (infoOf(ref.kind).home) {
  case Home::Batches:
    return readBatch(ref.uid);
  case Home::Readings:
    return readReading(ref.uid);
  case Home::Things:
    break;
  }
  return readThing(ref);
}

Trouble SqliteStore::write(const Record& record, Moment at) {
  switch (infoOf(record.ref.kind).home) {
  case Home::Batches:
    return writeBatch(record, at);
  case Home::Readings:
    return writeReading(record);
  case Home::Things:
    break;
  }
  return writeThing(record, at);
}

core::Result<std::optional<Record>> SqliteStore::readThing(const Ref& ref) {
  std::optional<Record> out;
  if (auto trouble = m_db->each("SELECT body, binned_at FROM thing WHERE uid = ? AND kind = ?",
                                {qt(ref.uid), kindText(ref.kind)}, [&](const QSqlQuery& row) {
                                  fill(out, ref, exchange::parsedOrNothing(plain(row.value(0))),
                                       momentOf(row.value(1)));
                                  return false;
                                }))
    return *trouble;
  if (out && out->body.is_discarded()) return damaged("a " + std::string(code(ref.kind)) + " can't be read");
  return out;
}

Trouble SqliteStore::writeThing(const Record& record, Moment at) {
  const auto name = textIn(record.body, "name"), crop = textIn(record.body, "crop");
  if (auto trouble = m_db->run(
          "INSERT INTO thing (uid, kind, name, crop, body, changed_at, binned_at) VALUES (?, ?, ?, ?, ?, ?, "
          "?) "
          "ON CONFLICT (uid) DO UPDATE SET name = excluded.name, crop = excluded.crop, body = excluded.body, "
          "changed_at = excluded.changed_at, binned_at = excluded.binned_at",
          {qt(record.ref.uid), kindText(record.ref.kind), name, crop, dumped(record.body), stamp(at),
           orNull(record.binnedAt)}))
    return trouble;
  const auto row = m_db->single("SELECT id FROM thing WHERE uid = ?", {qt(record.ref.uid)});
  if (!row) return row.problem();
  if (auto trouble = m_db->run("DELETE FROM find_thing WHERE rowid = ?", {*row})) return trouble;
  if (record.binnedAt) return std::nullopt;
  return m_db->run("INSERT INTO find_thing (rowid, words) VALUES (?, ?)",
                   {*row, name + " " + crop + " " + kindText(record.ref.kind)});
}

core::Result<std::vector<RecordHead>> SqliteStore::list(Kind kind, bool binned) {
  std::vector<RecordHead> out;
  if (auto trouble = m_db->each("SELECT kind, uid, name, crop, changed_at, binned_at FROM thing WHERE kind = "
                                "? AND (binned_at IS NOT NULL) = ? "
                                "ORDER BY name COLLATE NOCASE, id",
                                {kindText(kind), binned ? 1 : 0}, [&](const QSqlQuery& row) {
                                  out.push_back(headOf(row));
                                  return true;
                                }))
    return *trouble;
  return out;
}

core::Result<std::vector<RecordHead>> SqliteStore::bin() {
  std::vector<RecordHead> out;
  if (auto trouble = m_db->each(
          "SELECT kind, uid, name, crop, changed_at, binned_at FROM thing WHERE binned_at IS NOT NULL "
          "UNION ALL SELECT 'batch', uid, formula_name || ', ' || strftime('%Y-%m-%d', at, 'unixepoch'), "
          "crop, "
          "changed_at, binned_at FROM batch WHERE binned_at IS NOT NULL ORDER BY 6 DESC LIMIT 1000",
          {}, [&](const QSqlQuery& row) {
            out.push_back(headOf(row));
            return true;
          }))
    return *trouble;
  return out;
}

core::Result<std::optional<Step>> SqliteStore::oneStep(Sql sql, const std::string& who) {
  std::optional<Step> out;
  bool whole = true;
  if (auto trouble = m_db->each(sql, {qt(who), qt(who)}, [&](const QSqlQuery& row) {
        out = stepOf(row);
        whole = out.has_value();
        return false;
      }))
    return *trouble;
  if (!whole) return damaged("a step of undo can't be read");
  return out;
}

core::Result<std::optional<Step>> SqliteStore::lastDone(const std::string& who) {
  return oneStep("SELECT id, at, who, words, merge_key, changes FROM step WHERE undone = 0 AND (who = ? OR "
                 "who = '' OR ? = '') "
                 "ORDER BY id DESC LIMIT 1",
                 who);
}
core::Result<std::optional<Step>> SqliteStore::firstUndone(const std::string& who) {
  return oneStep("SELECT id, at, who, words, merge_key, changes FROM step WHERE undone = 1 AND (who = ? OR "
                 "who = '' OR ? = '') "
                 "ORDER BY id LIMIT 1",
                 who);
}

/// The uid alone may stand in another thing's body, so each that holds it is read.
core::Result<std::optional<Step>> SqliteStore::oneStepOf(Sql sql, const std::string& who, const Ref& ref) {
  std::optional<Step> out;
  const auto touches = [&](const Step& step) {
    return std::any_of(step.changes.begin(), step.changes.end(), [&](const auto& c) { return c.ref == ref; });
  };
  if (auto trouble = m_db->each(sql, {qt(who), qt(who), qt(ref.uid)}, [&](const QSqlQuery& row) {
        auto step = stepOf(row);
        if (!step || !touches(*step)) return true;
        out = std::move(step);
        return false;
      }))
    return *trouble;
  return out;
}

core::Result<std::optional<Step>> SqliteStore::lastDoneOf(const std::string& who, const Ref& ref) {
  return oneStepOf("SELECT id, at, who, words, merge_key, changes FROM step WHERE undone = 0 AND (who = ? OR "
                   "who = '' OR ? = '') AND instr(changes, ?) > 0 ORDER BY id DESC",
                   who, ref);
}
core::Result<std::optional<Step>> SqliteStore::firstUndoneOf(const std::string& who, const Ref& ref) {
  return oneStepOf("SELECT id, at, who, words, merge_key, changes FROM step WHERE undone = 1 AND (who = ? OR "
                   "who = '' OR ? = '') AND instr(changes, ?) > 0 ORDER BY id",
                   who, ref);
}

core::Result<std::optional<core::Deed>> SqliteStore::oneDeed(Sql sql, const std::string& who) {
  std::optional<core::Deed> out;
  if (auto trouble = m_db->each(sql, {qt(who), qt(who)}, [&](const QSqlQuery& row) {
        out = core::deedFromLine(plain(row.value(0)));
        return false;
      }))
    return *trouble;
  return out;
}

core::Result<std::optional<core::Deed>> SqliteStore::deedOfLastDone(const std::string& who) {
  return oneDeed(
      "SELECT words FROM step WHERE undone = 0 AND (who = ? OR who = '' OR ? = '') ORDER BY id DESC LIMIT 1",
      who);
}
core::Result<std::optional<core::Deed>> SqliteStore::deedOfFirstUndone(const std::string& who) {
  return oneDeed(
      "SELECT words FROM step WHERE undone = 1 AND (who = ? OR who = '' OR ? = '') ORDER BY id LIMIT 1", who);
}

core::Result<std::int64_t> SqliteStore::addStep(const Step& step) {
  constexpr int mostSteps =
      20000; // older ones can't be taken back any more; versions and batches keep what was used
  if (auto trouble = m_db->run("INSERT INTO step (at, who, words, merge_key, changes) VALUES (?, ?, ?, ?, ?)",
                               {stamp(step.at), qt(step.who), qt(core::deedLine(step.deed)),
                                qt(step.mergeKey), dumped(changesJson(step))}))
    return *trouble;
  const auto number = m_db->lastRow();
  if (auto trouble =
          m_db->run("DELETE FROM step WHERE id <= ?", {static_cast<qlonglong>(number - mostSteps)}))
    return *trouble;
  return number;
}

Trouble SqliteStore::replaceStep(const Step& step) {
  return m_db->run("UPDATE step SET at = ?, words = ?, changes = ? WHERE id = ?",
                   {stamp(step.at), qt(core::deedLine(step.deed)), dumped(changesJson(step)),
                    static_cast<qlonglong>(step.number)});
}

Trouble SqliteStore::markUndone(std::int64_t step, bool undone) {
  return m_db->run("UPDATE step SET undone = ? WHERE id = ?", {undone ? 1 : 0, static_cast<qlonglong>(step)});
}

Trouble SqliteStore::dropUndone(const std::string& who) {
  return m_db->run("DELETE FROM step WHERE undone = 1 AND (who = ? OR who = '' OR ? = '')",
                   {qt(who), qt(who)});
}

core::Result<std::vector<Step>> SqliteStore::steps(int newest) {
  std::vector<Step> out;
  if (auto trouble = m_db->each(
          "SELECT id, at, who, words, merge_key, changes FROM step WHERE undone = 0 ORDER BY id DESC LIMIT ?",
          {newest}, [&](const QSqlQuery& row) {
            if (auto step = stepOf(row)) out.push_back(std::move(*step));
            return true;
          }))
    return *trouble;
  return out;
}

core::Result<int> SqliteStore::addVersion(const Version& version) {
  const auto newest = m_db->single("SELECT coalesce(max(number), 0) FROM version WHERE thing_uid = ?",
                                   {qt(version.thingUid)});
  if (!newest) return newest.problem();
  Version numbered = version;
  numbered.number = newest->toInt() + 1;
  if (auto trouble = putVersion(numbered)) return *trouble;
  return numbered.number;
}

Trouble SqliteStore::putVersion(const Version& v) {
  return m_db->run(
      "INSERT INTO version (thing_uid, number, at, who, why, name, words, body) VALUES (?, ?, ?, ?, ?, ?, ?, "
      "?)",
      {qt(v.thingUid), v.number, stamp(v.at), qt(v.who), qt(v.why), qt(v.name),
       qt(core::changeLines(v.changes)), dumped(v.body)});
}

Trouble SqliteStore::putStep(const Step& step, bool undone) {
  return m_db->run(
      "INSERT INTO step (id, at, who, words, merge_key, undone, changes) VALUES (?, ?, ?, ?, ?, ?, ?)",
      {static_cast<qlonglong>(step.number), stamp(step.at), qt(step.who), qt(core::deedLine(step.deed)),
       qt(step.mergeKey), undone ? 1 : 0, dumped(changesJson(step))});
}

core::Result<std::vector<Version>> SqliteStore::versions(const std::string& thingUid) {
  std::vector<Version> out;
  if (auto trouble = m_db->each("SELECT thing_uid, number, at, who, why, name, words, body FROM version "
                                "WHERE thing_uid = ? ORDER BY number DESC",
                                {qt(thingUid)}, [&](const QSqlQuery& row) {
                                  if (auto version = versionOf(row)) out.push_back(std::move(*version));
                                  return true;
                                }))
    return *trouble;
  return out;
}

core::Result<std::optional<Version>> SqliteStore::version(const std::string& thingUid, int number) {
  std::optional<Version> out;
  if (auto trouble = m_db->each("SELECT thing_uid, number, at, who, why, name, words, body FROM version "
                                "WHERE thing_uid = ? AND number = ?",
                                {qt(thingUid), number}, [&](const QSqlQuery& row) {
                                  out = versionOf(row);
                                  return false;
                                }))
    return *trouble;
  return out;
}

Trouble SqliteStore::eachRecord(Kind kind, const std::function<bool(const Record&, Moment)>& visit) {
  // Names first, then one by one: reading a record runs statements of its own.
  std::vector<std::pair<std::string, Moment>> all;
  const auto note = [&](const QSqlQuery& row) {
    all.emplace_back(plain(row.value(0)), Moment{row.value(1).toLongLong()});
    return true;
  };
  const auto trouble = infoOf(kind).home == Home::Batches
                           ? m_db->each("SELECT uid, changed_at FROM batch ORDER BY id", {}, note)
                           : m_db->each("SELECT uid, changed_at FROM thing WHERE kind = ? ORDER BY id",
                                        {kindText(kind)}, note);
  if (trouble) return trouble;
  for (const auto& [uid, at] : all) {
    const auto record = read({kind, uid});
    if (!record) return record.problem();
    if (*record && !visit(**record, at)) return std::nullopt;
  }
  return std::nullopt;
}

Trouble SqliteStore::eachVersion(const std::function<bool(const Version&)>& visit) {
  return m_db->each("SELECT thing_uid, number, at, who, why, name, words, body FROM version ORDER BY id", {},
                    [&](const QSqlQuery& row) {
                      const auto version = versionOf(row);
                      return !version || visit(*version);
                    });
}

Trouble SqliteStore::eachStep(const std::function<bool(const Step&, bool)>& visit) {
  return m_db->each("SELECT id, at, who, words, merge_key, changes, undone FROM step ORDER BY id", {},
                    [&](const QSqlQuery& row) {
                      const auto step = stepOf(row);
                      return !step || visit(*step, row.value(6).toInt() != 0);
                    });
}

Trouble SqliteStore::eachMeta(const std::function<bool(const std::string&, const std::string&)>& visit) {
  return m_db->each("SELECT key, value FROM meta ORDER BY key", {},
                    [&](const QSqlQuery& row) { return visit(plain(row.value(0)), plain(row.value(1))); });
}

} // namespace butte::book
