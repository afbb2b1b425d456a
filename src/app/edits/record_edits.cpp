#include "edits/record_edits.h"

#include "base/decimal.h"
#include "document/book_desk.h"
#include "edit.h"
#include "edits/paper_memory.h"
#include "typed_numbers.h"
#include "units/convert.h"

namespace butte::app {

using book::Trouble;
using exchange::Amount;
using exchange::Json;

RecordEdits::RecordEdits(BookDesk& desk) : m_desk(desk), m_body(std::make_unique<Json>()) {}

RecordEdits::~RecordEdits() = default;

void RecordEdits::takeRecord(const book::Record& record) {
  m_ref = record.ref;
  *m_body = record.body;
}

std::string RecordEdits::textAt(const std::string& pointer) const {
  const Json::json_pointer place(pointer);
  return body().contains(place) && body()[place].is_string() ? body()[place].get<std::string>()
                                                             : std::string();
}

Amount RecordEdits::figureAt(const std::string& pointer) const {
  const Json::json_pointer place(pointer);
  return body().contains(place) ? exchange::figureFrom(body()[place]) : Amount{};
}

Trouble RecordEdits::set(const Deed& deed, const std::string& pointer, const Json& value) {
  const Json::json_pointer place(pointer);
  const auto before = body().contains(place) ? body()[place] : Json();
  if (auto trouble = m_desk.book().applyGathering(
          {0, {}, {}, deed, m_ref.uid + pointer, {{m_ref, "/body" + pointer, before, value}}}))
    return trouble;
  exchange::put(*m_body, {pointer, before, value});
  return std::nullopt;
}

bool BatchEdits::load(const std::string& uid) {
  const auto record = m_desk.book().record({book::Kind::Batch, uid});
  if (!record || !*record) return false;
  auto batch = book::batchFromJson((*record)->body);
  if (!batch) return false;
  takeRecord(**record);
  m_batch = std::move(batch).value();
  return true;
}

Trouble BatchEdits::change(const Deed& deed, const std::string& pointer, const Json& value) {
  if (auto trouble = set(deed, pointer, value)) return trouble;
  if (auto batch = book::batchFromJson(body())) m_batch = std::move(batch).value();
  return std::nullopt;
}

Trouble BatchEdits::setActual(std::size_t line, const Amount& weight) {
  const auto& name = m_batch.weights[line].productName;
  return change(weight.isEmpty() ? Deed{DeedCode::WeighedNothing, {name}}
                                 : Deed{DeedCode::Weighed, {name, weight.digits, weight.unit}},
                "/weights/" + std::to_string(line) + "/actual", exchange::figureJson(weight));
}

Trouble BatchEdits::setLot(std::size_t line, const QString& lot) {
  return change({DeedCode::LotNamed, {m_batch.weights[line].productName, lot.toStdString()}},
                "/weights/" + std::to_string(line) + "/lot", lot.toStdString());
}

Trouble BatchEdits::setConductivityRead(const Amount& reading) {
  return change(reading.isEmpty() ? Deed{DeedCode::ReadingTakenOff, {"ec"}}
                                  : Deed{DeedCode::BatchEcRead, {reading.digits, reading.unit}},
                "/ec_read", exchange::figureJson(reading));
}

Trouble BatchEdits::setPhRead(const QString& digits) {
  const auto text = digits.toStdString();
  return change(digits.isEmpty() ? Deed{DeedCode::ReadingTakenOff, {"ph"}}
                                 : Deed{DeedCode::BatchPhRead, {text}},
                "/ph_read", digits.isEmpty() ? Json() : Json(text));
}

Trouble BatchEdits::setWho(const QString& initials) {
  return change({DeedCode::BatchMixedBy, {initials.toStdString()}}, "/who", initials.toStdString());
}

Trouble BatchEdits::setNote(const QString& text) {
  return change({DeedCode::BatchNote, {text.toStdString()}}, "/note", text.toStdString());
}

bool ThingEdits::take(const book::Record& record) {
  if (ref() == record.ref && body() == record.body) return false;
  takeRecord(record);
  return true;
}

Trouble ThingEdits::setKnown(const std::string& fact, const std::string& shown, const std::string& pointer,
                             const Json& value) {
  const auto name = textAt("/name");
  return set(shown.empty() ? Deed{DeedCode::FactTakenAway, {name, fact}}
                           : Deed{DeedCode::FactTyped, {name, fact, shown}},
             pointer, value);
}

Trouble ThingEdits::setFact(const std::string& key, const QString& text) {
  return setKnown(key, text.toStdString(), "/" + key, text.isEmpty() ? Json() : Json(text.toStdString()));
}

Trouble ThingEdits::setBag(const Amount& bag) {
  return setKnown("bag", bag.isEmpty() ? std::string() : bag.digits + " " + bag.unit, "/bag",
                  exchange::figureJson(bag));
}

Trouble ThingEdits::setVolume(const Amount& volume) {
  return setKnown("volume", volume.isEmpty() ? std::string() : volume.digits + " " + volume.unit, "/volume",
                  exchange::figureJson(volume));
}

std::vector<std::string> ThingEdits::hazards() const {
  std::vector<std::string> out;
  for (const auto& code : body().value("hazards", Json::array())) {
    if (code.is_string()) out.push_back(code.get<std::string>());
  }
  return out;
}

Trouble ThingEdits::setHazards(const std::vector<std::string>& codes) {
  std::string all;
  for (const auto& code : codes)
    all += (all.empty() ? "" : " ") + code;
  return setKnown("hazards", all, "/hazards", codes.empty() ? Json() : Json(codes));
}

Trouble ThingEdits::setColour(const std::string& colour) {
  return setKnown("colour", colour, "/colour", colour);
}

Trouble ThingEdits::setHatch(const std::string& hatch) {
  return setKnown("hatch", hatch, "/hatch", hatch);
}

QStringList ThingEdits::layoutSaid() const {
  return app::layoutSaid({ref(), body(), {}});
}

std::size_t ThingEdits::reportCount() const {
  return body().value("reports", Json::array()).size();
}

std::string ThingEdits::reportDate(std::size_t report) const {
  return textAt("/reports/" + std::to_string(report) + "/date").substr(0, 10);
}

std::string ThingEdits::laboratory(std::size_t report) const {
  return textAt("/reports/" + std::to_string(report) + "/laboratory");
}

Trouble ThingEdits::setReportDate(std::size_t report, const QString& isoDate) {
  return setKnown("report_date", isoDate.toStdString(), "/reports/" + std::to_string(report) + "/date",
                  isoDate.toStdString());
}

Trouble ThingEdits::setLaboratory(std::size_t report, const QString& name) {
  return setKnown("laboratory", name.toStdString(), "/reports/" + std::to_string(report) + "/laboratory",
                  name.toStdString());
}

ThingEdits::Upkeep ThingEdits::upkeep(const std::string& what) const {
  for (const auto& entry : body().value("upkeep", Json::array())) {
    if (entry.value("what", std::string()) == what)
      return {entry.value("every_months", std::string()), entry.value("last", std::string())};
  }
  return {};
}

Trouble ThingEdits::setUpkeep(const std::string& what, const Upkeep& upkeep) {
  Json fresh{{"what", what}};
  if (!upkeep.everyMonths.empty()) fresh["every_months"] = upkeep.everyMonths;
  if (!upkeep.last.empty()) fresh["last"] = upkeep.last;
  Json list = body().value("upkeep", Json::array());
  const auto known = std::find_if(list.begin(), list.end(), [&](const Json& entry) {
    return entry.value("what", std::string()) == what;
  });
  if (known != list.end())
    *known = fresh;
  else
    list.push_back(fresh);
  return setKnown("upkeep", what + " " + upkeep.everyMonths + " " + upkeep.last, "/upkeep", list);
}

namespace {

/// The vessel of this name, however it is capitalised; nothing where there is none.
std::optional<book::Ref> vesselNamed(BookDesk& desk, const std::string& name) {
  const auto heads = desk.book().store().list(book::Kind::Vessel, false);
  if (!heads) return std::nullopt;
  const auto wanted = QString::fromStdString(name);
  for (const auto& head : *heads) {
    if (QString::fromStdString(head.name).compare(wanted, Qt::CaseInsensitive) == 0) return head.ref;
  }
  return std::nullopt;
}

} // namespace

core::Result<double> keptValue(const book::Quantity& quantity, const std::string& digits,
                               const std::string& unit) {
  const auto typed = core::parseDecimal(digits).value_or(0);
  const auto value =
      unit.empty() ? core::Result<double>(typed) : core::convert(typed, unit, std::string(quantity.unit));
  if (value && (*value < quantity.least || *value > quantity.most))
    return core::problemAt(core::ProblemCode::OutsideLimits, std::string(quantity.code),
                           {digits, core::decimalText(quantity.least), core::decimalText(quantity.most),
                            std::string(quantity.unit)});
  return value;
}

Trouble keepReading(BookDesk& desk, const std::string& vessel, const std::string& quantity, double value,
                    const Amount& typed) {
  const auto known = vesselNamed(desk, vessel);
  const auto number = desk.book().store().nextReadingNumber();
  if (!number) return number.problem();
  const auto ref = known.value_or(book::freshRef(book::Kind::Vessel));
  const book::Reading reading{*number,  ref.uid,
                              quantity, book::Moment::now(),
                              value,    typed.digits + (typed.unit.empty() ? "" : " " + typed.unit),
                              {},       {}};
  book::Step step;
  step.deed = {core::DeedCode::ReadingKept, {quantity, vessel}};
  if (!known) step.changes.push_back({ref, "", Json(), Json{{"body", {{"name", vessel}}}}});
  step.changes.push_back(
      {{book::Kind::Reading, std::to_string(*number)}, "", Json(), Json{{"body", toJson(reading)}}});
  return desk.book().apply(std::move(step));
}

Trouble correctReading(BookDesk& desk, const book::Reading& reading, double value, const Amount& typed) {
  auto right = reading;
  right.value = value;
  right.typed = typed.digits + (typed.unit.empty() ? "" : " " + typed.unit);
  return desk.book().replaceBody(
      {book::Kind::Reading, std::to_string(reading.number)}, toJson(right),
      {core::DeedCode::ReadingCorrected, {reading.quantity, reading.vesselName, typed.digits, typed.unit}});
}

Trouble binReading(BookDesk& desk, const book::Reading& reading, const std::string& name) {
  return desk.book().moveToBin({book::Kind::Reading, std::to_string(reading.number)}, name);
}

} // namespace butte::app
