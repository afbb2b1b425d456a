#include "edits/tank_edits.h"

#include "base/decimal.h"
#include "book/tables/log_table.h"
#include "document/book_desk.h"
#include "dose/vessel.h"
#include "edits/record_edits.h"
#include "formula_json.h"
#include "typed_numbers.h"

#include <QTimeZone>
#include <algorithm>
#include <array>

namespace butte::app {

using book::Kind;
using book::Ref;
using book::TankLine;
using book::Trouble;
using core::DeedCode;
using core::problemAt;
using core::ProblemCode;
using exchange::Amount;
using exchange::Json;

bool isSouthern(QLocale::Territory territory) {
  static constexpr std::array southern{
      QLocale::Angola,     QLocale::Argentina,   QLocale::Australia,  QLocale::Bolivia,
      QLocale::Botswana,   QLocale::Brazil,      QLocale::Chile,      QLocale::Eswatini,
      QLocale::Fiji,       QLocale::Lesotho,     QLocale::Madagascar, QLocale::Malawi,
      QLocale::Mauritius,  QLocale::Mozambique,  QLocale::Namibia,    QLocale::NewCaledonia,
      QLocale::NewZealand, QLocale::Paraguay,    QLocale::Peru,       QLocale::Reunion,
      QLocale::Tanzania,   QLocale::SouthAfrica, QLocale::Uruguay,    QLocale::Zambia,
      QLocale::Zimbabwe};
  return std::find(southern.begin(), southern.end(), territory) != southern.end();
}

std::vector<book::RecordHead> TankEdits::vessels() const {
  if (!m_desk.isOpen()) return {};
  auto heads = m_desk.book().store().list(Kind::Vessel, false);
  return heads ? std::move(heads).value() : std::vector<book::RecordHead>();
}

std::vector<book::RecordHead> TankEdits::formulas() const {
  if (!m_desk.isOpen()) return {};
  auto heads = m_desk.book().store().list(Kind::Formula, false);
  return heads ? std::move(heads).value() : std::vector<book::RecordHead>();
}

core::Result<Json> TankEdits::bodyOf(const std::string& uid) const {
  if (!m_desk.isOpen()) return noBookOpen();
  const auto record = m_desk.book().record({Kind::Vessel, uid});
  if (!record) return record.problem();
  if (!*record) return problemAt(ProblemCode::BadFile, "vessel", {"it is no longer in the book"});
  return (*record)->body;
}

core::Result<book::VesselFacts> TankEdits::facts(const std::string& uid) const {
  const auto body = bodyOf(uid);
  if (!body) return body.problem();
  return book::vesselFactsFromJson(*body);
}

core::Result<VesselLog> TankEdits::log(const std::string& uid) const {
  auto known = facts(uid);
  if (!known) return known.problem();
  VesselLog out;
  out.facts = std::move(known).value();
  auto& store = m_desk.book().store();
  const auto trouble = store.eachRecord(Kind::TankLine, [&](const book::Record& record, book::Moment) {
    if (record.binnedAt) return true;
    auto line = book::tankLineFromJson(record.body);
    if (line && line->vesselUid == uid) out.lines.emplace_back(record.ref, std::move(line).value());
    return true;
  });
  if (trouble) return *trouble;
  std::stable_sort(out.lines.begin(), out.lines.end(),
                   [](const auto& a, const auto& b) { return a.second.at < b.second.at; });
  return out;
}

core::Result<VesselReadings> TankEdits::readings(const std::string& uid) const {
  return vesselReadings(m_desk.book().store(), uid);
}

std::map<std::string, book::Reading> TankEdits::lastReadings(const std::string& uid) const {
  std::map<std::string, book::Reading> out;
  for (const auto& quantity : book::quantities()) {
    const book::ReadingFilter filter{uid, std::string(quantity.code), {}, {}, false};
    const auto last = m_desk.book().store().readings(std::nullopt, 1, filter);
    if (last && !last->empty()) out[filter.quantity] = last->front();
  }
  return out;
}

bool TankEdits::isNamed(const QString& name) const {
  const auto heads = vessels();
  return std::any_of(heads.begin(), heads.end(), [&](const book::RecordHead& head) {
    return QString::fromStdString(head.name).compare(name.trimmed(), Qt::CaseInsensitive) == 0;
  });
}

core::Result<std::string> TankEdits::makeVessel(const QString& typed) {
  const auto name = typed.trimmed();
  if (!m_desk.isOpen()) return noBookOpen();
  Json body{{"name", name.toStdString()}};
  if (isSouthern(QTimeZone::systemTimeZone().territory())) body["southern"] = true;
  const auto made = m_desk.book().create(Kind::Vessel, body, {DeedCode::ThingMade, {name.toStdString()}});
  if (!made) return made.problem();
  return made->uid;
}

Trouble TankEdits::set(const std::string& uid, const std::string& key, const Json& value,
                       std::vector<std::string> told) {
  const auto body = bodyOf(uid);
  if (!body) return body.problem();
  Json next = *body;
  if (value.is_null())
    next.erase(key);
  else
    next[key] = value;
  if (next == *body) return {};
  if (auto trouble = book::vesselFactsFromJson(next); !trouble) return trouble.problem();
  told.insert(told.begin(), {next.value("name", std::string()), key});
  const Json before = body->contains(key) ? (*body)[key] : Json();
  book::Step step;
  step.deed = value.is_null() ? core::Deed{DeedCode::FactTakenAway, {told[0], told[1]}}
                              : core::Deed{DeedCode::VesselFact, std::move(told)};
  step.mergeKey = "vessel/" + uid + "/" + key;
  step.changes.push_back({{Kind::Vessel, uid}, "/body/" + key, before, value});
  return m_desk.book().applyGathering(std::move(step));
}

Trouble TankEdits::setAmount(const std::string& uid, const std::string& key, const Amount& amount) {
  return set(uid, key, amount.isEmpty() ? Json() : exchange::amountJson(amount.digits, amount.unit),
             {amount.digits, amount.unit});
}

Trouble TankEdits::setText(const std::string& uid, const std::string& key, const QString& text) {
  const auto value = text.trimmed().toStdString();
  // A formula is told by its name.
  const auto named = key == "formula" ? formula(value, 0) : nullptr;
  return set(uid, key, value.empty() ? Json() : Json(value), {named ? named->name : value});
}

Trouble TankEdits::setFilling(const std::string& uid, const std::string& formulaUid, bool water,
                              const std::string& batchUid) {
  const auto body = bodyOf(uid);
  if (!body) return body.problem();
  book::Step step;
  const auto change = [&](const char* key, const Json& value) {
    const Json before = body->contains(key) ? (*body)[key] : Json();
    if (before != value)
      step.changes.push_back({{Kind::Vessel, uid}, std::string("/body/") + key, before, value});
  };
  change("formula", formulaUid.empty() ? Json() : Json(formulaUid));
  change("filled_with_water", water ? Json(true) : Json());
  change("batch", batchUid.empty() ? Json() : Json(batchUid));
  const auto named = formula(formulaUid, 0);
  step.deed = {DeedCode::VesselFact,
               {body->value("name", std::string()), water ? "filled_with_water" : "formula",
                named ? named->name : formulaUid}};
  return step.changes.empty() ? Trouble() : m_desk.book().apply(std::move(step));
}

Trouble TankEdits::setFlag(const std::string& uid, const std::string& key, bool on) {
  return set(uid, key, on ? Json(true) : Json(), {"✓"});
}

Trouble TankEdits::setMeasures(const std::string& uid, const std::optional<core::Vessel>& measures) {
  if (!measures) return set(uid, "measures", Json(), {});
  return set(uid, "measures",
             Json{{"shape", core::vesselShapeKey(measures->shape)},
                  {"across_cm", core::decimalText(measures->acrossCm)},
                  {"along_cm", core::decimalText(measures->alongCm)},
                  {"height_cm", core::decimalText(measures->heightCm)}},
             {"✓"});
}

Trouble TankEdits::read(const std::string& uid, const TypedReadings& typed) {
  const auto body = bodyOf(uid);
  if (!body) return body.problem();
  const auto facts = book::vesselFactsFromJson(*body);
  if (!facts) return facts.problem();
  const auto number = m_desk.book().store().nextReadingNumber();
  if (!number) return number.problem();
  book::Step step;
  step.deed = {DeedCode::TankTold, {facts->name, "read", "", ""}};
  auto next = *number;
  const auto at = book::Moment::now();
  std::vector<std::pair<std::string, Amount>> all{
      {"ec", typed.ec}, {typed.phBy, typed.ph}, {"level", typed.level}, {"temperature", typed.temperature}};
  all.insert(all.end(), typed.others.begin(), typed.others.end());
  for (const auto& [code, amount] : all) {
    if (amount.isEmpty()) continue;
    const auto value = keptValue(*book::quantityFrom(code), amount.digits, amount.unit);
    if (!value) return value.problem();
    book::Reading reading{
        next, uid, code, at, *value, amount.digits + (amount.unit.empty() ? "" : " " + amount.unit), {}, {}};
    if (code == "level" && !typed.levelAs.empty()) reading.typed = typed.levelAs;
    step.changes.push_back(
        {{Kind::Reading, std::to_string(next)}, "", Json(), Json{{"body", toJson(reading)}}});
    ++next;
  }
  if (step.changes.empty()) return {};
  return m_desk.book().apply(std::move(step));
}

Trouble TankEdits::tellAll(std::vector<TankLine> lines) {
  book::Step step;
  const auto now = book::Moment::now();
  for (auto& line : lines) {
    const auto body = bodyOf(line.vesselUid);
    if (!body) return body.problem();
    if (line.at.seconds == 0) line.at = now;
    if (line.who.empty()) line.who = m_desk.initials().toStdString();
    if (!book::comesFromFormula(line.did)) line.formulaUid.clear();
    if (!line.formulaUid.empty() && line.formulaVersion == 0) {
      const auto version = m_desk.book().makeVersion({Kind::Formula, line.formulaUid}, "used");
      if (!version) return version.problem();
      line.formulaVersion = *version;
    }
    if (step.changes.empty())
      step.deed = {DeedCode::TankTold,
                   {body->value("name", std::string()), std::string(code(line.did)), line.volume.digits,
                    line.volume.unit}};
    step.changes.push_back({book::freshRef(Kind::TankLine), "", Json(), Json{{"body", toJson(line)}}});
  }
  return step.changes.empty() ? Trouble() : m_desk.book().apply(std::move(step));
}

std::string TankEdits::logTable(const std::string& uid) const {
  std::vector<TankLine> lines;
  if (const auto found = log(uid))
    for (const auto& [ref, line] : found->lines)
      lines.push_back(line);
  return book::logTable(lines);
}

core::Result<std::size_t> TankEdits::bringIn(const std::string& uid, const std::string& csv) {
  const auto there = log(uid);
  if (!there) return there.problem();
  auto read = book::readLogTable(csv, uid);
  if (!read) return read.problem();
  std::vector<TankLine> fresh;
  auto lines = std::move(read).value();
  for (auto& line : lines) {
    const bool known = std::any_of(there->lines.begin(), there->lines.end(),
                                   [&](const auto& one) { return toJson(one.second) == toJson(line); });
    if (known) continue;
    if (!line.formulaUid.empty() && !formula(line.formulaUid, line.formulaVersion)) {
      line.formulaUid = there->facts.formulaUid;
      line.formulaVersion = 0;
    }
    fresh.push_back(std::move(line));
  }
  if (fresh.empty()) return std::size_t{0};
  const auto count = fresh.size();
  if (auto trouble = tellAll(std::move(fresh))) return *trouble;
  return count;
}

void TankEdits::nameFilling(TankLine& line, const book::VesselFacts& facts) {
  line.formulaUid = facts.formulaUid;
  const bool pours = line.did == book::TankDid::Filled || line.did == book::TankDid::Poured;
  if (pours && line.liquid == book::TankLiquid::Feed) line.batchUid = facts.batchUid;
}

std::optional<book::Batch> TankEdits::batch(const std::string& uid) const {
  if (uid.empty() || !m_desk.isOpen()) return std::nullopt;
  const auto record = m_desk.book().record({Kind::Batch, uid});
  if (!record || !*record) return std::nullopt;
  auto batch = book::batchFromJson((*record)->body);
  return batch ? std::optional(std::move(batch).value()) : std::nullopt;
}

std::map<std::string, book::Batch> TankEdits::batchesOf(const VesselLog& log) const {
  std::map<std::string, book::Batch> out;
  const auto take = [&](const std::string& uid) {
    if (out.contains(uid)) return;
    if (auto found = batch(uid)) out[uid] = std::move(*found);
  };
  take(log.facts.batchUid);
  for (const auto& [ref, line] : log.lines)
    take(line.batchUid);
  return out;
}

std::vector<book::BatchHead> TankEdits::lastBatches(int most) const {
  if (!m_desk.isOpen()) return {};
  auto heads = m_desk.book().store().batches({}, std::nullopt, most);
  return heads ? std::move(heads).value() : std::vector<book::BatchHead>();
}

Trouble TankEdits::fillWithBatch(const std::string& uid, const std::string& batchUid) {
  const auto found = batch(batchUid);
  if (!found) return problemAt(ProblemCode::BadFile, "batch", {"it is no longer in the book"});
  return setFilling(uid, found->formulaUid, false, batchUid);
}

Trouble TankEdits::strike(const Ref& line, const QString& what) {
  return m_desk.book().moveToBin(line, what.toStdString());
}

std::shared_ptr<const exchange::FormulaDocument> TankEdits::formula(const std::string& uid,
                                                                    int version) const {
  if (uid.empty() || !m_desk.isOpen()) return nullptr;
  if (version == 0) {
    const auto record = m_desk.book().record({Kind::Formula, uid});
    if (!record || !*record) return nullptr;
    auto document = exchange::readFormulaDocument((*record)->body);
    return document ? std::make_shared<const exchange::FormulaDocument>(std::move(document).value())
                    : nullptr;
  }
  auto& slot = m_formulas[{uid, version}];
  if (slot) return slot;
  const auto found = m_desk.book().store().version(uid, version);
  if (!found || !*found) return nullptr;
  auto document = exchange::readFormulaDocument((*found)->body);
  if (document) slot = std::make_shared<const exchange::FormulaDocument>(std::move(document).value());
  return slot;
}

} // namespace butte::app
