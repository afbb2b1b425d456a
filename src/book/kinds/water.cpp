// A water of the farm: its reports over time, what is done at its source.
#include "kinds/kind_info.h"

#include "base/decimal.h"
#include "changes/json_changes.h"
#include "kinds/parts.h"
#include "tables/table_columns.h"
#include "tables/table_import.h"
#include "tables/table_writer.h"
#include "typed_numbers.h"
#include "units/convert.h"
#include "water/report_row.h"
#include "water/water.h"
#include "water_json.h"

#include <algorithm>

namespace butte::book {

using core::problemAt;
using core::ProblemCode;
using exchange::ObjectReader;

namespace {

/// What wears out at a source and when it was last changed.
void checkUpkeep(const Json& list, Trouble& problem) {
  for (std::size_t i = 0; i < list.size() && !problem; ++i) {
    ObjectReader reader(list[i], "upkeep[" + std::to_string(i) + "]", problem);
    if (reader.text("what").value_or("").empty())
      reader.fail(ProblemCode::MissingKey, "what", {"what wants upkeep, such as membrane"});
    const auto months = reader.text("every_months").value_or("");
    if (!months.empty() && core::parseDecimal(months).value_or(0) <= 0)
      reader.fail(ProblemCode::OutOfRange, "every_months", {months, "a number of months above 0"});
    const auto last = reader.text("last").value_or("");
    if (!last.empty() && !Moment::fromIso(last))
      reader.fail(ProblemCode::OutOfRange, "last", {"'" + last + "'", "a date such as 2026-03-02"});
    reader.finish();
  }
}

Trouble checkWater(const Json& body) {
  Trouble problem;
  ObjectReader reader(body, "", problem);
  reader.text("name");
  reader.text("note");
  if (const auto* upkeep = reader.array("upkeep")) checkUpkeep(*upkeep, problem);
  const auto* reports = reader.array("reports");
  reader.finish();
  for (std::size_t i = 0; reports && i < reports->size() && !problem; ++i) {
    ObjectReader report((*reports)[i], "reports[" + std::to_string(i) + "]", problem);
    const auto date = report.text("date").value_or("");
    if (!Moment::fromIso(date))
      report.fail(ProblemCode::OutOfRange, "date", {"'" + date + "'", "a date such as 2026-03-02"});
    report.text("laboratory");
    const auto* water = report.object("water");
    if (!water) report.fail(ProblemCode::MissingKey, "water", {"a report needs its figures"});
    report.finish();
    if (!problem) problem = checkPart("water", *water, "reports[" + std::to_string(i) + "].");
  }
  return problem;
}

std::vector<core::Change> waterChanges(const Json& before, const Json& after) {
  std::vector<core::Change> out;
  const Differences found{before, after, out};
  found.place("/name", "name");
  found.place("/note", "note");
  const auto count = [](const Json& json) { return json.contains("reports") ? json["reports"].size() : 0; };
  const auto a = count(before), b = count(after);
  for (auto i = a; i < b; ++i)
    out.push_back({core::ChangeCode::ReportAdded, {after["reports"][i].value("date", std::string("?"))}});
  for (std::size_t i = 0; i < std::min(a, b); ++i) {
    const auto date = after["reports"][i].value("date", std::string("?"));
    const auto place = "/reports/" + std::to_string(i);
    found.rows({place + "/water/rows", "water", date, "key", "mg_per_l", "mg/L"});
    found.place(place + "/water/ph", "water_ph", date);
    found.place(place + "/water/ec", "water_ec", date);
    found.place(place + "/date", "date");
  }
  if (b < a) out.push_back({core::ChangeCode::ReportsTakenOut, {std::to_string(a - b)}});
  return out;
}

/// Keys of a report's rows in a table: those of its first version, then whatever else a report may hold.
const std::vector<std::string>& waterKeys() {
  static const auto keys = [] {
    std::vector<std::string> out{"Ca",    "CaO",
                                 "Mg",    "MgO",
                                 "K",     "K2O",
                                 "Na",    "NH4",
                                 "N_NH4", "hardness_as_CaCO3",
                                 "HCO3",  "alkalinity_as_CaCO3",
                                 "NO3",   "N_NO3",
                                 "SO4",   "S",
                                 "Cl",    "P",
                                 "H2PO4", "P2O5",
                                 "Si",    "SiO2",
                                 "Fe",    "Mn",
                                 "Zn",    "B",
                                 "Cu"};
    for (auto& key : core::waterKeys()) {
      if (std::find(out.begin(), out.end(), key) == out.end()) out.push_back(std::move(key));
    }
    return out;
  }();
  return keys;
}

/// A report's figure in mg/L: as typed where it was, else turned; "<" in front of a limit of detection.
std::string milligramsIn(const Json& report, const std::string& key) {
  const Json::json_pointer place("/water/rows");
  if (!report.contains(place)) return {};
  for (const auto& row : report[place]) {
    if (row.value("key", std::string()) != key) continue;
    const std::string sign = row.value("below", false) ? "<" : "";
    if (row.contains("mg_per_l")) return sign + row["mg_per_l"].get<std::string>();
    const auto value = core::parseDecimal(row.value("amount", std::string()));
    const auto mg =
        core::milligramsPerLitre({key, value.value_or(0), row.value("unit", std::string("mg/L")), false});
    return value && mg ? sign + core::decimalText(*mg) : std::string();
  }
  return {};
}

std::string milliSiemensIn(const Json& report) {
  const auto digits = textAt(report, "/water/ec/amount"), unit = textAt(report, "/water/ec/unit");
  if (unit == "mS/cm" || digits.empty()) return digits;
  const auto value = core::parseDecimal(digits);
  const auto turned = core::convert(value.value_or(0), unit, "mS/cm");
  return value && turned ? core::decimalText(*turned) : std::string();
}

Trouble writeWaters(Store& store, TableWriter& out) {
  out.header({"water", "date", "laboratory", "pH", "EC (mS/cm)"}, waterKeys(), "mg/L");
  out.end();
  return store.eachRecord(Kind::Water, [&](const Record& record, Moment) {
    if (record.binnedAt) return true;
    for (const auto& report : record.body.value("reports", Json::array())) {
      out.text(textAt(record.body, "/name"));
      out.text(textAt(report, "/date"));
      out.text(textAt(report, "/laboratory"));
      out.number(textAt(report, "/water/ph"));
      out.number(milliSiemensIn(report));
      for (const auto& key : waterKeys())
        out.number(milligramsIn(report, key));
      if (!out.end()) return false;
    }
    return true;
  });
}

RowSaid takeWater(TableImport& import, const core::CsvRow& row) {
  using words::RowCode;
  const auto name = import.cell(row, "water"), date = import.cell(row, "date");
  if (name.empty()) return no(RowCode::NoName);
  if (!Moment::fromIso(date)) return no(RowCode::NotADate, {date, "date"});
  Json report{{"date", date},
              {"laboratory", import.cell(row, "laboratory")},
              {"water", {{"name", name}, {"rows", Json::array()}}}};
  RowSaid wrong;
  for (const auto& key : waterKeys()) {
    const auto figure = import.number(row, columnOf(key, "mg/l"), wrong, true);
    if (!figure) return wrong;
    if (!figure->digits.empty())
      report["water"]["rows"].push_back(exchange::waterRowJson(key, figure->digits, "mg/L", figure->below));
  }
  const auto ph = import.number(row, "ph", wrong);
  if (!ph) return wrong;
  if (!ph->digits.empty()) report["water"]["ph"] = ph->digits;
  const auto ec = import.number(row, "ec (ms/cm)", wrong);
  if (!ec) return wrong;
  if (!ec->digits.empty()) report["water"]["ec"] = exchange::amountJson(ec->digits, "mS/cm");
  return import.addReport(name, std::move(report), yes(RowCode::ReportAdded, {name, date}),
                          no(RowCode::ReportThere, {name, date}));
}

const TableKind waterTable{"water", "waters", writeWaters, takeWater};

} // namespace

const KindInfo kinds::water{.kind = Kind::Water,
                            .code = "water",
                            .one = "water",
                            .many = "waters",
                            .check = checkWater,
                            .changes = waterChanges,
                            .table = &waterTable};

} // namespace butte::book
