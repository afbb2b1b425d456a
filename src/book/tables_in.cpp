// Tables into the book: each row becomes a record or a word about what is wrong with it.
#include "tables.h"

#include "base/decimal.h"
#include "batch.h"
#include "chem/nutrient.h"
#include "record_check.h"
#include "table_columns.h"
#include "table_text.h"
#include "typed_numbers.h"
#include "units/convert.h"
#include "water_json.h"
#include "words.h"

#include <algorithm>
#include <map>
#include <sstream>

namespace butte::book {

using core::CsvRow;
using core::problemAt;
using core::ProblemCode;

namespace {

/// What is known of a name so far: the record as it stands in the book and as the rows before have made it.
struct Known {
  Ref ref;
  std::optional<Json> before;
  Json now;
};

class Importer {
public:
  Importer(Store& store, TableText table) : m_store(store), m_table(std::move(table)) {}

  core::Result<ImportPlan> plan() {
    const auto& first = m_table.header.front();
    if (first == "product")
      each(Kind::Product, "products", [this](const CsvRow& row) { return product(row); });
    else if (first == "water")
      each(Kind::Water, "waters", [this](const CsvRow& row) { return water(row); });
    else if (first == "target")
      each(Kind::Target, "targets", [this](const CsvRow& row) { return target(row); });
    else if (first == "batch")
      each(Kind::Batch, "batches", [this](const CsvRow& row) { return batch(row); });
    else if (first == "tank")
      each(Kind::Reading, "readings", [this](const CsvRow& row) { return reading(row); });
    else
      return problemAt(ProblemCode::UnknownKey, "header",
                       {"its first column must be product, water, target, batch or tank"});
    if (m_trouble) return *m_trouble;
    finish();
    return std::move(m_plan);
  }

private:
  /// Words for a row that is taken, or what is wrong.
  struct Said {
    bool taken;
    std::string words;
  };
  static Said no(const std::string& words) { return {false, words}; }

  void each(Kind kind, const std::string& name, const std::function<Said(const CsvRow&)>& take) {
    m_kind = kind;
    m_plan.about = name + ", " + m_table.about();
    if (kind != Kind::Reading && kind != Kind::Batch) known(kind);
    for (const auto& row : m_table.rows) {
      auto said =
          row.cells.size() > m_table.header.size() ? no("it has more cells than the header") : take(row);
      m_plan.taken += said.taken;
      m_plan.rows.push_back({row.line, said.taken, std::move(said.words)});
    }
  }

  void known(Kind kind) {
    m_trouble = m_store.eachRecord(kind, [&](const Record& record, Moment) {
      if (!record.binnedAt)
        m_known[record.body.value("name", std::string())] = {record.ref, record.body, record.body};
      return true;
    });
  }

  /// A number cell into `out[key]`; false with words when it is no number.
  bool number(const CsvRow& row, const std::string& column, std::string& digits, std::string& wrong,
              bool* below = nullptr) {
    auto cell = m_table.cell(row, column);
    if (cell.empty()) return true;
    if (below && cell.front() == '<') {
      *below = true;
      cell.erase(0, cell.find_first_not_of("< "));
    }
    const auto found = m_table.digits(cell);
    if (!found) {
      wrong = "“" + cell + "” in “" + column + "” is not a number such as " +
              (m_table.decimalComma ? "12,5" : "12.5");
      return false;
    }
    digits = *found;
    return true;
  }

  /// Keeps a body under its name: new, or changed, or the same as before.
  Said put(const std::string& name, Json body, const std::string& words) {
    if (const auto trouble = checkRecord(m_kind, body)) return no(words::problemLine(*trouble));
    const auto it = m_known.find(name);
    if (it == m_known.end()) {
      m_known[name] = {freshRef(m_kind), std::nullopt, std::move(body)};
      return {true, name + ": new" + words};
    }
    if (it->second.now == body) return no(name + " is in the book just so already");
    it->second.now = std::move(body);
    return {true, name + (words.empty() ? ": changed" : words)};
  }

  Said product(const CsvRow& row) {
    const auto name = m_table.cell(row, "product");
    if (name.empty()) return no("it has no name");
    Json body = m_known.contains(name) ? m_known[name].now : Json{{"name", name}};
    Json entry{{"id", "own"}, {"name", name}};
    std::string wrong, digits;
    const auto take = [&](const char* column, const char* key) {
      digits.clear();
      if (!number(row, column, digits, wrong)) return false;
      if (!digits.empty()) entry[key] = digits;
      return true;
    };
    if (!take("purity (%)", "purity_percent") || !take("price (per kg)", "price_per_kg") ||
        !take("density (kg/l)", "density_kg_per_l"))
      return no(wrong);
    if (entry.contains("density_kg_per_l")) entry["liquid"] = true;
    if (const auto formula = m_table.cell(row, "formula"); !formula.empty()) entry["formula"] = formula;
    Json label = Json::array();
    for (const auto& key : labelKeys()) {
      digits.clear();
      if (!number(row, columnOf(key, "%"), digits, wrong)) return no(wrong);
      if (!digits.empty()) label.push_back({{"key", key}, {"percent", digits}});
    }
    if (!label.empty()) entry["label"] = label;
    body["entry"] = entry;
    for (const auto* key : {"currency", "colour", "hatch", "note"}) {
      if (const auto text = m_table.cell(row, key); !text.empty()) body[key] = text;
    }
    std::istringstream codes(m_table.cell(row, "hazards"));
    Json hazards = Json::array();
    for (std::string code; codes >> code;)
      hazards.push_back(code);
    if (!hazards.empty()) body["hazards"] = hazards;
    digits.clear();
    if (!number(row, "bag (kg)", digits, wrong)) return no(wrong);
    if (!digits.empty()) body["bag"] = exchange::amountJson(digits, "kg");
    return put(name, std::move(body), "");
  }

  Said water(const CsvRow& row) {
    const auto name = m_table.cell(row, "water"), date = m_table.cell(row, "date");
    if (name.empty()) return no("it has no name");
    if (!Moment::fromIso(date)) return no("“" + date + "” in “date” is no date such as 2026-03-02");
    Json report{{"date", date},
                {"laboratory", m_table.cell(row, "laboratory")},
                {"water", {{"name", name}, {"rows", Json::array()}}}};
    std::string wrong, digits;
    for (const auto& key : waterKeys()) {
      digits.clear();
      bool below = false;
      if (!number(row, columnOf(key, "mg/l"), digits, wrong, &below)) return no(wrong);
      if (!digits.empty())
        report["water"]["rows"].push_back(exchange::waterRowJson(key, digits, "mg/L", below));
    }
    digits.clear();
    if (!number(row, "ph", digits, wrong)) return no(wrong);
    if (!digits.empty()) report["water"]["ph"] = digits;
    digits.clear();
    if (!number(row, "ec (ms/cm)", digits, wrong)) return no(wrong);
    if (!digits.empty()) report["water"]["ec"] = exchange::amountJson(digits, "mS/cm");
    Json body = m_known.contains(name) ? m_known[name].now : Json{{"name", name}, {"reports", Json::array()}};
    for (const auto& other : body["reports"]) {
      if (other.value("date", "") == date) return no(name + " has a report of " + date + " already");
    }
    body["reports"].push_back(report);
    return put(name, std::move(body), ": report of " + date + " added");
  }

  Said target(const CsvRow& row) {
    const auto name = m_table.cell(row, "target");
    if (name.empty()) return no("it has no name");
    Json rows = Json::array();
    std::string wrong, digits;
    for (const auto nutrient : core::allNutrients) {
      const std::string key(core::nutrientKey(nutrient));
      digits.clear();
      if (!number(row, columnOf(key, "mg/l"), digits, wrong)) return no(wrong);
      if (digits.empty()) continue;
      std::string band = core::isTraceElement(nutrient) ? "15" : "5";
      if (!number(row, columnOf(key, "band %"), band, wrong)) return no(wrong);
      rows.push_back({{"nutrient", key}, {"mg_per_l", digits}, {"tolerance_percent", band}});
    }
    if (rows.empty()) return no("it has no element");
    Json body{{"name", name}};
    for (const auto* key : {"crop", "stage", "season", "from_week", "note"}) {
      if (const auto text = m_table.cell(row, key); !text.empty()) body[key] = text;
    }
    body["target"] = {{"name", name}, {"rows", rows}};
    return put(name, std::move(body), "");
  }

  Said batch(const CsvRow& row) {
    const auto uid = m_table.cell(row, "batch");
    if (uid.empty()) return no("it has no batch");
    std::string wrong, litres, ecPlanned, ecRead, ph, planned, actual;
    if (!number(row, "volume (l)", litres, wrong) || !number(row, "ec planned (ms/cm)", ecPlanned, wrong) ||
        !number(row, "ec read (ms/cm)", ecRead, wrong) || !number(row, "ph read", ph, wrong) ||
        !number(row, "planned (g)", planned, wrong) || !number(row, "actual (g)", actual, wrong))
      return no(wrong);
    auto it = m_known.find(uid);
    if (it == m_known.end()) {
      const auto inBook = m_store.read({Kind::Batch, uid});
      if (inBook && *inBook) return no("batch " + uid + " is in the book already");
      Json body{{"at", m_table.cell(row, "time")},
                {"formula", ""},
                {"formula_version", 0},
                {"formula_name", m_table.cell(row, "formula")},
                {"crop", m_table.cell(row, "crop")},
                {"water_name", m_table.cell(row, "water")},
                {"litres", core::parseDecimal(litres).value_or(0)},
                {"who", m_table.cell(row, "who")},
                {"note", m_table.cell(row, "note")},
                {"weights", Json::array()}};
      if (!ecPlanned.empty()) body["ec_planned"] = *core::parseDecimal(ecPlanned);
      if (!ecRead.empty()) body["ec_read"] = exchange::amountJson(ecRead, "mS/cm");
      if (!ph.empty()) body["ph_read"] = ph;
      if (const auto trouble = checkRecord(Kind::Batch, body)) return no(words::problemLine(*trouble));
      it = m_known.emplace(uid, Known{{Kind::Batch, uid}, std::nullopt, std::move(body)}).first;
    }
    const auto name = m_table.cell(row, "product");
    if (!name.empty()) {
      Json line{{"product", name},
                {"name", name},
                {"tank", m_table.cell(row, "tank")},
                {"planned_g", core::parseDecimal(planned).value_or(0)},
                {"lot", m_table.cell(row, "lot")}};
      if (!actual.empty()) line["actual"] = exchange::amountJson(actual, "g");
      Json body = it->second.now;
      body["weights"].push_back(line);
      if (const auto trouble = checkRecord(Kind::Batch, body)) return no(words::problemLine(*trouble));
      it->second.now = std::move(body);
    }
    return {true, "batch " + uid + (name.empty() ? std::string() : ": " + name)};
  }

  Said reading(const CsvRow& row) {
    Reading r;
    r.tank = m_table.cell(row, "tank");
    const auto time = m_table.cell(row, "time");
    r.quantity = QString::fromStdString(m_table.cell(row, "quantity")).toLower().toStdString();
    if (r.tank.empty()) return no("it has no tank");
    const auto at = Moment::fromIso(time);
    if (!at) return no("“" + time + "” in “time” is no time such as 2026-03-02T07:15:00Z");
    r.at = *at;
    const auto unit = unitOf(r.quantity);
    if (!unit) return no("“" + r.quantity + "” is no quantity; ec, ph, level or temperature");
    std::string digits, wrong;
    if (!number(row, "value", digits, wrong)) return no(wrong);
    if (digits.empty()) return no("it has no value");
    auto typedUnit = m_table.cell(row, "unit");
    if (typedUnit.empty()) typedUnit = *unit;
    const auto value = unit->empty() ? core::Result<double>(*core::parseDecimal(digits))
                                     : core::convert(*core::parseDecimal(digits), typedUnit, *unit);
    if (!value) return no(words::problemText(value.problem()));
    r.value = *value;
    r.typed = digits + (typedUnit.empty() ? "" : " " + typedUnit);
    const auto key = r.tank + "\n" + r.quantity + "\n" + std::to_string(r.at.seconds);
    if (m_seen.contains(key)) return no("the same time of " + r.tank + " stands above already");
    m_seen[key] = true;
    const auto there = m_store.hasReading(r);
    if (there && *there) return no(r.tank + " has this reading already");
    m_plan.readings.push_back(r);
    return {true, r.tank + " " + r.quantity + " " + r.typed + ", " + time};
  }

  void finish() {
    for (const auto& [name, known] : m_known) {
      if (!known.before)
        m_plan.changes.push_back({known.ref, "", Json(), Json{{"body", known.now}}});
      else if (*known.before != known.now)
        m_plan.changes.push_back({known.ref, "/body", *known.before, known.now});
    }
  }

  Store& m_store;
  TableText m_table;
  Kind m_kind = Kind::Water;
  std::map<std::string, Known> m_known;
  std::map<std::string, bool> m_seen;
  ImportPlan m_plan;
  Trouble m_trouble;
};

} // namespace

core::Result<ImportPlan> planImport(Store& store, const std::string& bytes) {
  auto table = readTable(bytes);
  if (!table) return table.problem();
  return Importer(store, std::move(table).value()).plan();
}

Trouble import(Book& book, const ImportPlan& plan, const std::string& fileName) {
  const core::Deed deed{core::DeedCode::RowsBroughtIn, {std::to_string(plan.taken), fileName}};
  if (plan.readings.empty())
    return plan.changes.empty() ? Trouble() : book.apply({0, {}, {}, deed, {}, plan.changes});
  if (book.isReadOnly()) return problemAt(ProblemCode::BookReadOnly, book.path(), {book.readOnlyWords()});
  // Many readings are one thing to take back: the import they came with, which comes out of the bin at the
  // end.
  auto& store = book.store();
  const auto ref = freshRef(Kind::ReadingImport);
  const auto now = Moment::now();
  const Json body{{"name", fileName}, {"rows", plan.readings.size()}};
  auto readings = plan.readings;
  for (auto& reading : readings)
    reading.importUid = ref.uid;
  if (auto trouble = store.begin()) return trouble;
  auto trouble = store.write({ref, body, now}, now);
  if (!trouble) trouble = store.addReadings(readings);
  if (!trouble) trouble = store.commit();
  if (trouble) {
    store.rollback();
    return trouble;
  }
  return book.apply({0, {}, {}, deed, {}, {{ref, "/binned_at", Json(now.seconds), Json()}}});
}

} // namespace butte::book
