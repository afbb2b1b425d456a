// What a meter said of a vessel.
#include "reading.h"

#include "base/decimal.h"
#include "changes/json_changes.h"
#include "deed_words.h"
#include "kinds/kind_info.h"
#include "tables/table_import.h"
#include "tables/table_writer.h"
#include "units/convert.h"
#include "words.h"

#include <QString>

namespace butte::book {

using core::ProblemCode;

namespace {

std::string quantityCodes() {
  std::string out;
  for (const auto& quantity : quantities())
    out += (out.empty() ? "" : ", ") + std::string(quantity.code);
  return out;
}

core::Problem markFault(const std::string& mark) {
  return core::problemAt(ProblemCode::NotOneOf, "mark", {mark, "wild, stuck, clock"});
}

Trouble checkReading(const Json& body) {
  Trouble problem;
  exchange::ObjectReader reader(body, "", problem);
  if (reader.text("vessel").value_or("").empty())
    reader.fail(ProblemCode::MissingKey, "vessel", {"a reading needs its vessel"});
  const auto quantity = reader.text("quantity").value_or("");
  if (!quantityFrom(quantity)) reader.fail(ProblemCode::NotOneOf, "quantity", {quantity, quantityCodes()});
  const auto at = reader.text("at").value_or("");
  if (!Moment::fromIso(at))
    reader.fail(ProblemCode::OutOfRange, "at",
                {"'" + at + "'", "a date and time such as 2026-03-02T07:15:00Z"});
  reader.number("value");
  reader.text("typed");
  reader.text("import");
  if (const auto mark = reader.text("mark"); mark && !isReadingMark(*mark))
    reader.fail(ProblemCode::NotOneOf, "mark", markFault(*mark).values);
  reader.finish();
  return problem;
}

/// What a reading is told in.
std::string chosenUnit(const std::string& kept, const words::Measures& measures) {
  return kept == "mS/cm" ? measures.conductivityUnit()
         : kept == "L"   ? measures.volumeUnit()
         : kept == "C"   ? measures.temperatureUnit()
                         : kept;
}

Trouble writeReadings(Store& store, TableWriter& out) {
  out.header({"vessel", "time", "quantity", "value", "unit", "mark"}, {}, "");
  out.end();
  return store.eachReading([&](const Reading& r, std::optional<Moment> binned) {
    if (binned) return true;
    out.text(r.vesselName);
    out.text(r.at.iso());
    out.text(r.quantity);
    const auto* quantity = quantityFrom(r.quantity);
    const auto kept = quantity ? std::string(quantity->unit) : std::string();
    const auto unit = chosenUnit(kept, out.measures());
    const auto shown = unit == kept ? core::Result<double>(r.value) : core::convert(r.value, kept, unit);
    out.number(shown ? std::optional(*shown) : std::nullopt);
    out.text(unit);
    out.text(r.mark);
    return out.end();
  });
}

/// The vessel of this name, in the book or from a row above; a new one where there is none.
std::string vesselNamed(TableImport& import, const std::string& name) {
  auto& vessels = import.records();
  if (vessels.empty()) {
    // Names in the book, read once.
    if (const auto heads = import.store().list(Kind::Vessel, false)) {
      for (const auto& head : *heads)
        vessels[head.name] = {head.ref, Json{{"name", head.name}}, Json{{"name", head.name}}};
    }
  }
  if (!vessels.contains(name)) {
    // A vessel that was renamed, or lies in the bin, keeps the uid of its first name: it is another one.
    Ref ref{Kind::Vessel, vesselUidOf(name)};
    const auto taken = import.store().read(ref);
    if (!taken || *taken) ref = freshRef(Kind::Vessel);
    vessels[name] = {ref, std::nullopt, Json{{"name", name}}};
  }
  return vessels[name].ref.uid;
}

RowSaid takeReading(TableImport& import, const core::CsvRow& row) {
  using words::RowCode;
  Reading r;
  r.vesselName = import.cell(row, "vessel");
  const auto time = import.cell(row, "time");
  r.quantity = QString::fromStdString(import.cell(row, "quantity")).toLower().toStdString();
  if (r.vesselName.empty()) return no(RowCode::NoVessel);
  const auto at = Moment::fromIso(time);
  if (!at) return no(RowCode::NotATime, {time, "time"});
  r.at = *at;
  const auto* quantity = quantityFrom(r.quantity);
  if (!quantity) return no(RowCode::NotAQuantity, {r.quantity, quantityCodes()});
  RowSaid wrong;
  const auto figure = import.number(row, "value", wrong);
  if (!figure) return wrong;
  if (figure->digits.empty()) return no(RowCode::NoValue);
  auto unit = import.cell(row, "unit");
  if (unit.empty()) unit = quantity->unit;
  const auto typed = core::parseDecimal(figure->digits).value_or(0);
  const auto value =
      quantity->unit.empty() ? core::Result<double>(typed) : core::convert(typed, unit, quantity->unit);
  if (!value) return no(RowCode::Faulty, {words::problemText(value.problem())});
  r.mark = import.cell(row, "mark");
  if (!isReadingMark(r.mark)) return no(RowCode::Faulty, {words::problemText(markFault(r.mark))});
  r.value = *value;
  r.typed = figure->digits + (unit.empty() ? "" : " " + unit);
  if (!import.noteOnce(r.vesselName + "\n" + r.quantity + "\n" + std::to_string(r.at.seconds)))
    return no(RowCode::TimeTwice, {r.vesselName});
  r.vesselUid = vesselNamed(import, r.vesselName);
  const auto there = import.store().hasReading(r);
  if (there && *there) return no(RowCode::ReadingThere, {r.vesselName});
  import.addReading(r);
  return yes(RowCode::ReadingTaken, {r.vesselName, words::quantityName(r.quantity), r.typed, time});
}

const TableKind readingTable{"vessel", "readings", writeReadings, takeReading};

} // namespace

std::string vesselUidOf(const std::string& name) {
  return "vessel-" + QByteArray::fromStdString(name).toHex().toStdString();
}

Json toJson(const Reading& reading) {
  Json out{{"vessel", reading.vesselUid}, {"quantity", reading.quantity}, {"at", reading.at.iso()},
           {"value", reading.value},      {"typed", reading.typed},       {"import", reading.importUid}};
  if (!reading.mark.empty()) out["mark"] = reading.mark;
  return out;
}

bool isReadingMark(std::string_view mark) {
  return mark.empty() || mark == "wild" || mark == "stuck" || mark == "clock";
}

const std::vector<Quantity>& quantities() {
  static const std::vector<Quantity> all{
      {"ec", "mS/cm", {"mS/cm", "uS/cm", "ppm500", "ppm640", "ppm700"}},
      {"ph", "", {""}, 0, 14},
      {"level", "L", {"L", "gal_us", "gal_imp"}},
      {"temperature", "C", {"C", "F"}, -50, 100},
      // Told apart, since each can be trusted so far.
      {"ph_drops", "", {""}, 0, 14},
      {"ph_strip", "", {""}, 0, 14},
      {"air", "C", {"C", "F"}, -50, 100},
      // Of what runs off the roots, and what they were given.
      {"ec_drain", "mS/cm", {"mS/cm", "uS/cm", "ppm500", "ppm640", "ppm700"}},
      {"ph_drain", "", {""}, 0, 14},
      {"ec_drip", "mS/cm", {"mS/cm", "uS/cm", "ppm500", "ppm640", "ppm700"}},
      {"ph_drip", "", {""}, 0, 14},
      {"ec_root", "mS/cm", {"mS/cm", "uS/cm", "ppm500", "ppm640", "ppm700"}},
      {"ph_root", "", {""}, 0, 14},
      {"given", "L", {"L", "gal_us", "gal_imp"}},
      {"drain", "L", {"L", "gal_us", "gal_imp"}}};
  return all;
}

const Quantity* quantityFrom(std::string_view code) {
  for (const auto& quantity : quantities()) {
    if (quantity.code == code) return &quantity;
  }
  return nullptr;
}

const KindInfo kinds::reading{.kind = Kind::Reading,
                              .code = "reading",
                              .one = "reading",
                              .many = "readings",
                              .check = checkReading,
                              .home = Home::Readings,
                              .nameKey = "typed",
                              .isListed = false,
                              .table = &readingTable};

} // namespace butte::book
