// Batches: as typed in the record's JSON, as columns in the tables.
#include "sqlite/sqlite_store.h"

#include <QCryptographicHash>

namespace butte::book {
namespace {

QVariant textOrNull(const std::optional<std::string>& text) {
  return text ? QVariant(qt(*text)) : QVariant(QMetaType::fromType<QString>());
}
std::optional<std::string> amountText(const std::optional<exchange::Amount>& amount) {
  return amount ? std::optional(amount->digits + " " + amount->unit) : std::nullopt;
}
std::optional<exchange::Amount> amountOf(const QVariant& value) {
  if (value.isNull()) return std::nullopt;
  const auto text = plain(value);
  const auto gap = text.find(' ');
  if (gap == std::string::npos) return std::nullopt;
  return exchange::Amount{text.substr(0, gap), text.substr(gap + 1)};
}
std::optional<std::string> textOf(const QVariant& value) {
  return value.isNull() ? std::nullopt : std::optional(plain(value));
}
QString findWords(const Batch& batch) {
  auto words = batch.formulaName + " " + batch.crop + " " + batch.waterName + " " + batch.who + " " +
               batch.note + " " + batch.at.iso().substr(0, 10);
  for (const auto& weight : batch.weights)
    words += " " + weight.lot;
  return qt(words);
}
/// A text that contains `part`, for LIKE ... ESCAPE '\'; a null value when nothing is asked.
QVariant likePart(const std::string& part) {
  if (part.empty()) return QVariant(QMetaType::fromType<QString>());
  QString escaped = qt(part);
  escaped.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_");
  return "%" + escaped + "%";
}
QVariant exact(const std::string& text) {
  return text.empty() ? QVariant(QMetaType::fromType<QString>()) : QVariant(qt(text));
}

// One condition for every filter: a value that is NULL asks for nothing. The question is a table of one row,
// so that each value is bound once. The lots that there are come by leaps through their index (a lot stands
// in hundreds of batches), and the batches of those that fit are found once, not again for every batch.
#define BATCH_QUESTION                                                                                       \
  "WITH RECURSIVE ask (crop, formula, since, before, deviation, product, lot, binned) AS "                   \
  "(VALUES (?, ?, ?, ?, ?, ?, ?, ?)), "                                                                      \
  "lots (lot) AS (SELECT min(lot) FROM batch_weight WHERE lot <> '' AND (SELECT lot FROM ask) IS NOT NULL "  \
  "UNION ALL SELECT (SELECT min(lot) FROM batch_weight WHERE lot <> '' AND lot > lots.lot) FROM lots "       \
  "WHERE lots.lot IS NOT NULL), "                                                                            \
  "with_lot (id) AS MATERIALIZED (SELECT batch_id FROM batch_weight WHERE lot <> '' AND lot IN "             \
  "(SELECT lot FROM lots WHERE lot LIKE (SELECT lot FROM ask) ESCAPE '\\')) "
#define BATCH_FROM                                                                                           \
  "FROM batch, ask WHERE (batch.binned_at IS NOT NULL) = ask.binned AND (ask.crop IS NULL OR batch.crop = "  \
  "ask.crop) "                                                                                               \
  "AND (ask.formula IS NULL OR batch.formula_uid = ask.formula) AND (ask.since IS NULL OR batch.at >= "      \
  "ask.since) "                                                                                              \
  "AND (ask.before IS NULL OR batch.at < ask.before) "                                                       \
  "AND (ask.deviation IS NULL OR batch.worst_deviation >= ask.deviation) "                                   \
  "AND (ask.product IS NULL OR EXISTS (SELECT 1 FROM batch_weight WHERE batch_id = batch.id "                \
  "AND product_name LIKE ask.product ESCAPE '\\')) "                                                         \
  "AND (ask.lot IS NULL OR batch.id IN (SELECT id FROM with_lot)) "

BatchHead batchHeadOf(const QSqlQuery& row) {
  BatchHead head;
  head.row = row.value(0).toLongLong();
  head.uid = plain(row.value(1));
  head.at = {row.value(2).toLongLong()};
  head.formulaName = plain(row.value(3));
  head.crop = plain(row.value(4));
  head.formulaVersion = row.value(5).toInt();
  head.litres = row.value(6).toDouble();
  head.deviationPercent = numberOf(row.value(7));
  head.ecPlanned = numberOf(row.value(8));
  head.ecRead = numberOf(row.value(9));
  return head;
}

} // namespace

Trouble SqliteStore::writeBatch(const Record& record, Moment at) {
  const auto read = batchFromJson(record.body);
  if (!read) return read.problem();
  const Batch& b = *read;
  const auto sheet = m_db->single("SELECT id FROM sheet WHERE sha256 = ?", {qt(b.sheet)});
  if (!sheet) return sheet.problem();
  const auto phRead = b.phRead ? std::optional(QString::fromStdString(*b.phRead).toDouble()) : std::nullopt;
  if (auto trouble = m_db->run("INSERT INTO batch (uid, at, formula_uid, formula_version, formula_name, "
                               "crop, water_name, litres, ec_planned, ph_planned, "
                               "ec_read, ec_typed, ph_read, ph_typed, who, note, sheet_id, worst_deviation, "
                               "changed_at, binned_at) "
                               "VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) ON "
                               "CONFLICT (uid) DO UPDATE SET at = excluded.at, "
                               "formula_uid = excluded.formula_uid, formula_version = "
                               "excluded.formula_version, formula_name = excluded.formula_name, "
                               "crop = excluded.crop, water_name = excluded.water_name, litres = "
                               "excluded.litres, ec_planned = excluded.ec_planned, "
                               "ph_planned = excluded.ph_planned, ec_read = excluded.ec_read, ec_typed = "
                               "excluded.ec_typed, ph_read = excluded.ph_read, "
                               "ph_typed = excluded.ph_typed, who = excluded.who, note = excluded.note, "
                               "sheet_id = excluded.sheet_id, "
                               "worst_deviation = excluded.worst_deviation, changed_at = "
                               "excluded.changed_at, binned_at = excluded.binned_at",
                               {qt(record.ref.uid),
                                static_cast<qlonglong>(b.at.seconds),
                                qt(b.formulaUid),
                                b.formulaVersion,
                                qt(b.formulaName),
                                qt(b.crop),
                                qt(b.waterName),
                                b.litres,
                                orNull(b.ecPlanned),
                                orNull(b.phPlanned),
                                orNull(b.ecReadMilliSiemens()),
                                textOrNull(amountText(b.ecRead)),
                                orNull(phRead),
                                textOrNull(b.phRead),
                                qt(b.who),
                                qt(b.note),
                                *sheet,
                                orNull(b.worstDeviationPercent()),
                                static_cast<qlonglong>(at.seconds),
                                orNull(record.binnedAt)}))
    return trouble;
  const auto row = m_db->single("SELECT id FROM batch WHERE uid = ?", {qt(record.ref.uid)});
  if (!row) return row.problem();
  if (auto trouble = writeWeights(row->toLongLong(), b)) return trouble;
  if (auto trouble = m_db->run("DELETE FROM find_batch WHERE rowid = ?", {*row})) return trouble;
  if (record.binnedAt) return std::nullopt;
  return m_db->run("INSERT INTO find_batch (rowid, words) VALUES (?, ?)", {*row, findWords(b)});
}

Trouble SqliteStore::writeWeights(std::int64_t row, const Batch& batch) {
  const auto id = static_cast<qlonglong>(row);
  if (auto trouble = m_db->run("DELETE FROM batch_weight WHERE batch_id = ?", {id})) return trouble;
  int position = 0;
  for (const auto& w : batch.weights) {
    const auto digits = w.actual ? std::optional(w.actual->digits) : std::nullopt;
    const auto unit = w.actual ? std::optional(w.actual->unit) : std::nullopt;
    if (auto trouble =
            m_db->run("INSERT INTO batch_weight (batch_id, position, product_id, product_name, tank, "
                      "planned_g, actual_g, actual_amount, "
                      "actual_unit, lot) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
                      {id, position++, qt(w.productId), qt(w.productName), qt(w.tank), w.plannedGrams,
                       orNull(w.actualGrams()), textOrNull(digits), textOrNull(unit), qt(w.lot)}))
      return trouble;
  }
  return std::nullopt;
}

core::Result<Batch> SqliteStore::batchOfRow(const QSqlQuery& row) {
  Batch b;
  b.at = {row.value(1).toLongLong()};
  b.formulaUid = plain(row.value(2));
  b.formulaVersion = row.value(3).toInt();
  b.formulaName = plain(row.value(4));
  b.crop = plain(row.value(5));
  b.waterName = plain(row.value(6));
  b.litres = row.value(7).toDouble();
  b.ecPlanned = numberOf(row.value(8));
  b.phPlanned = numberOf(row.value(9));
  b.ecRead = amountOf(row.value(10));
  b.phRead = textOf(row.value(11));
  b.who = plain(row.value(12));
  b.note = plain(row.value(13));
  b.sheet = plain(row.value(14));
  if (auto trouble = m_db->each("SELECT product_id, product_name, tank, planned_g, actual_amount, "
                                "actual_unit, lot FROM batch_weight "
                                "WHERE batch_id = ? ORDER BY position",
                                {row.value(0)}, [&](const QSqlQuery& line) {
                                  BatchWeight w{plain(line.value(0)),
                                                plain(line.value(1)),
                                                plain(line.value(2)),
                                                line.value(3).toDouble(),
                                                {},
                                                plain(line.value(6))};
                                  if (!line.value(4).isNull())
                                    w.actual = exchange::Amount{plain(line.value(4)), plain(line.value(5))};
                                  b.weights.push_back(std::move(w));
                                  return true;
                                }))
    return *trouble;
  return b;
}

core::Result<std::optional<Record>> SqliteStore::readBatch(const std::string& uid) {
  std::optional<Record> out;
  Trouble inside;
  if (auto trouble = m_db->each("SELECT batch.id, at, formula_uid, formula_version, formula_name, crop, "
                                "water_name, litres, ec_planned, ph_planned, "
                                "ec_typed, ph_typed, who, note, coalesce(sha256, ''), binned_at FROM batch "
                                "LEFT JOIN sheet ON sheet.id = sheet_id "
                                "WHERE uid = ?",
                                {qt(uid)}, [&](const QSqlQuery& row) {
                                  const auto batch = batchOfRow(row);
                                  if (!batch) {
                                    inside = batch.problem();
                                    return false;
                                  }
                                  fill(out, {Kind::Batch, uid}, toJson(*batch), momentOf(row.value(15)));
                                  return false;
                                }))
    return *trouble;
  if (inside) return *inside;
  return out;
}

core::Result<std::vector<BatchHead>> SqliteStore::batches(const BatchFilter& f,
                                                          const std::optional<BatchHead>& after, int most) {
  constexpr std::int64_t endOfTime = INT64_MAX;
  std::vector<BatchHead> out;
  if (auto trouble =
          m_db->each(BATCH_QUESTION "SELECT id, uid, at, formula_name, batch.crop, formula_version, litres, "
                                    "worst_deviation, ec_planned, ec_read " BATCH_FROM
                                    "AND (at, id) < (?, ?) ORDER BY at DESC, id DESC LIMIT ?",
                     {exact(f.crop), exact(f.formulaUid), orNull(f.from), orNull(f.before),
                      orNull(f.deviationAtLeast), likePart(f.product), likePart(f.lot), f.binned ? 1 : 0,
                      static_cast<qlonglong>(after ? after->at.seconds : endOfTime),
                      static_cast<qlonglong>(after ? after->row : endOfTime), most},
                     [&](const QSqlQuery& row) {
                       out.push_back(batchHeadOf(row));
                       return true;
                     }))
    return *trouble;
  return out;
}

core::Result<std::int64_t> SqliteStore::batchCount(const BatchFilter& f) {
  const auto count =
      m_db->single(BATCH_QUESTION "SELECT count(*) " BATCH_FROM,
                   {exact(f.crop), exact(f.formulaUid), orNull(f.from), orNull(f.before),
                    orNull(f.deviationAtLeast), likePart(f.product), likePart(f.lot), f.binned ? 1 : 0});
  if (!count) return count.problem();
  return static_cast<std::int64_t>(count->toLongLong());
}

core::Result<std::vector<BatchBucket>> SqliteStore::batchBuckets(const BatchFilter& f, std::int64_t width) {
  std::vector<BatchBucket> out;
  if (auto trouble = m_db->each(
          BATCH_QUESTION
          ", width (seconds) AS (VALUES (?)) SELECT at / (SELECT seconds FROM width), batch.crop, count(*), "
          "max(worst_deviation) " BATCH_FROM "GROUP BY 1, 2 ORDER BY 1, 2",
          {exact(f.crop), exact(f.formulaUid), orNull(f.from), orNull(f.before), orNull(f.deviationAtLeast),
           likePart(f.product), likePart(f.lot), f.binned ? 1 : 0, static_cast<qlonglong>(width)},
          [&](const QSqlQuery& row) {
            out.push_back({row.value(0).toLongLong(), plain(row.value(1)), row.value(2).toInt(),
                           numberOf(row.value(3))});
            return true;
          }))
    return *trouble;
  return out;
}

core::Result<std::vector<std::string>> SqliteStore::cropsOfBatches() {
  std::vector<std::string> out;
  if (auto trouble =
          m_db->each("SELECT DISTINCT crop FROM batch WHERE binned_at IS NULL AND crop <> '' ORDER BY crop",
                     {}, [&](const QSqlQuery& row) {
                       out.push_back(plain(row.value(0)));
                       return true;
                     }))
    return *trouble;
  return out;
}

Trouble SqliteStore::eachUse(const std::function<bool(const BatchUse&)>& visit) {
  BatchUse use; // one for all rows: a busy farm has tens of thousands of them
  std::int64_t row = 0;
  return m_db->each("SELECT batch.id, uid, at, product_id, product_name, coalesce(actual_g, planned_g), "
                    "lot, litres, crop, formula_uid, formula_name FROM batch JOIN batch_weight ON "
                    "batch_id = batch.id WHERE binned_at IS NULL ORDER BY at, batch.id, position",
                    {}, [&](const QSqlQuery& found) {
                      if (const auto id = found.value(0).toLongLong(); id != row) {
                        row = id;
                        use.batchUid = plain(found.value(1));
                        use.at = {found.value(2).toLongLong()};
                        use.batchLitres = found.value(7).toDouble();
                        use.crop = plain(found.value(8));
                        use.formulaUid = plain(found.value(9));
                        use.formulaName = plain(found.value(10));
                      }
                      use.productId = plain(found.value(3));
                      use.productName = plain(found.value(4));
                      use.grams = found.value(5).toDouble();
                      use.lot = plain(found.value(6));
                      return visit(use);
                    });
}

core::Result<std::string> SqliteStore::keepSheet(const std::string& html) {
  const QByteArray bytes(html.data(), static_cast<qsizetype>(html.size()));
  const auto name = QString::fromLatin1(QCryptographicHash::hash(bytes, QCryptographicHash::Sha256).toHex());
  // zlib after four bytes of length, as qUncompress() wants it; the format's page says so.
  if (auto trouble =
          m_db->run("INSERT INTO sheet (sha256, html_zlib) VALUES (?, ?) ON CONFLICT (sha256) DO NOTHING",
                    {name, qCompress(bytes)}))
    return *trouble;
  return name.toStdString();
}

core::Result<std::optional<std::string>> SqliteStore::sheet(const std::string& sha256) {
  const auto blob = m_db->single("SELECT html_zlib FROM sheet WHERE sha256 = ?", {qt(sha256)});
  if (!blob) return blob.problem();
  if (!blob->isValid()) return std::optional<std::string>{};
  return std::optional(qUncompress(blob->toByteArray()).toStdString());
}

Trouble SqliteStore::eachSheet(const std::function<bool(const std::string&)>& visit) {
  return m_db->each("SELECT html_zlib FROM sheet ORDER BY id", {}, [&](const QSqlQuery& row) {
    return visit(qUncompress(row.value(0).toByteArray()).toStdString());
  });
}

} // namespace butte::book
