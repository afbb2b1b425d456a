// A target of the farm's own: a crop's, a stage's, a season's.
#include "kinds/kind_info.h"

#include "base/decimal.h"
#include "changes/json_changes.h"
#include "chem/nutrient.h"
#include "kinds/parts.h"
#include "tables/table_columns.h"
#include "tables/table_import.h"
#include "tables/table_writer.h"
#include "target_json.h"

namespace butte::book {

using core::problemAt;
using core::ProblemCode;
using exchange::ObjectReader;

namespace {

Trouble checkTarget(const Json& body) {
  Trouble problem;
  ObjectReader reader(body, "", problem);
  for (const auto* key : {"name", "crop", "stage", "season", "from_week", "note"})
    reader.text(key);
  const auto* target = reader.object("target");
  if (!target) reader.fail(ProblemCode::MissingKey, "target", {"a target needs its elements"});
  reader.finish();
  return problem ? problem : checkPart("target", *target, "");
}

std::vector<core::Change> targetChanges(const Json& before, const Json& after) {
  std::vector<core::Change> out;
  const Differences found{before, after, out};
  for (const auto* key : {"name", "crop", "stage", "season", "note"})
    found.place(std::string("/") + key, key);
  found.rows({"/target/rows", "target", "", "nutrient", "mg_per_l", "mg/L"});
  return out;
}

/// A target's figure in mg/L: as typed where it was, else turned.
std::string wantedIn(const Json& body, const std::string& key) {
  const Json::json_pointer place("/target/rows");
  if (!body.contains(place)) return {};
  for (const auto& row : body[place]) {
    if (row.value("nutrient", std::string()) != key) continue;
    if (row.contains("mg_per_l")) return row["mg_per_l"].get<std::string>();
    const auto turned = exchange::rowMilligramsPerLitre(row);
    return turned ? core::decimalText(*turned) : std::string();
  }
  return {};
}

Trouble writeTargets(Store& store, TableWriter& out) {
  std::vector<std::string> keys;
  for (const auto nutrient : core::allNutrients)
    keys.emplace_back(core::nutrientKey(nutrient));
  out.header({"target", "crop", "stage", "season", "from_week", "note"}, keys, "mg/L");
  out.header({}, keys, "band %");
  out.end();
  return store.eachRecord(Kind::Target, [&](const Record& record, Moment) {
    if (record.binnedAt) return true;
    for (const auto* key : {"/name", "/crop", "/stage", "/season", "/from_week", "/note"})
      out.text(textAt(record.body, key));
    for (const auto& key : keys)
      out.number(wantedIn(record.body, key));
    for (const auto& key : keys)
      out.number(rowValue(record.body, "/target/rows", "nutrient", key, "tolerance_percent"));
    return out.end();
  });
}

RowSaid takeTarget(TableImport& import, const core::CsvRow& row) {
  using words::RowCode;
  const auto name = import.cell(row, "target");
  if (name.empty()) return no(RowCode::NoName);
  Json rows = Json::array();
  RowSaid wrong;
  for (const auto nutrient : core::allNutrients) {
    const std::string key(core::nutrientKey(nutrient));
    const auto figure = import.number(row, columnOf(key, "mg/l"), wrong);
    if (!figure) return wrong;
    if (figure->digits.empty()) continue;
    const auto band = import.number(row, columnOf(key, "band %"), wrong);
    if (!band) return wrong;
    const std::string usual = core::isTraceElement(nutrient) ? "15" : "5";
    rows.push_back({{"nutrient", key},
                    {"mg_per_l", figure->digits},
                    {"tolerance_percent", band->digits.empty() ? usual : band->digits}});
  }
  if (rows.empty()) return no(RowCode::NoElement);
  Json body{{"name", name}};
  for (const auto* key : {"crop", "stage", "season", "from_week", "note"}) {
    if (const auto text = import.cell(row, key); !text.empty()) body[key] = text;
  }
  body["target"] = {{"name", name}, {"rows", rows}};
  return import.put(name, std::move(body), yes(RowCode::Changed, {name}));
}

const TableKind targetTable{"target", "targets", writeTargets, takeTarget};

} // namespace

const KindInfo kinds::target{.kind = Kind::Target,
                             .code = "target",
                             .one = "target",
                             .many = "targets",
                             .check = checkTarget,
                             .changes = targetChanges,
                             .table = &targetTable};

} // namespace butte::book
