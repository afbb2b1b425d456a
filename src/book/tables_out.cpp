// The book's records as tables.
#include "tables.h"

#include "base/csv.h"
#include "base/decimal.h"
#include "batch.h"
#include "chem/nutrient.h"
#include "product/product.h"
#include "table_columns.h"
#include "target_document.h"
#include "target_json.h"
#include "units/convert.h"
#include "water/report_row.h"

#include <QSaveFile>
#include <algorithm>

namespace butte::book {

std::string columnOf(const std::string& key, const std::string& unit) {
  auto out = key + " (" + unit + ")";
  std::transform(out.begin(), out.end(), out.begin(),
                 [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
  return out;
}

const std::vector<std::string>& labelKeys() {
  static const auto keys = core::labelKeys();
  return keys;
}

const std::vector<std::string>& waterKeys() {
  static const std::vector<std::string> keys{"Ca",    "CaO",
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
  return keys;
}

std::optional<std::string> unitOf(const std::string& quantity) {
  if (quantity == "ec") return "mS/cm";
  if (quantity == "ph") return "";
  if (quantity == "level") return "L";
  if (quantity == "temperature") return "C";
  return std::nullopt;
}

namespace {

using core::decimalText;

std::string cellText(const Json& json, const char* pointer) {
  const Json::json_pointer place(pointer);
  return json.contains(place) && json[place].is_string() ? json[place].get<std::string>() : std::string();
}

/// The value of the row with this key in a list of rows.
std::string rowValue(const Json& body, const char* pointer, const char* keyName, const std::string& key,
                     const char* valueName) {
  const Json::json_pointer place(pointer);
  if (!body.contains(place) || !body[place].is_array()) return {};
  for (const auto& row : body[place]) {
    if (row.value(keyName, std::string()) == key) return row.value(valueName, std::string());
  }
  return {};
}

class TableWriter {
public:
  TableWriter(QSaveFile& file, bool decimalComma)
      : m_file(file), m_comma(decimalComma), m_delimiter(decimalComma ? ';' : ',') {}

  void text(const std::string& text) { cell(text); }
  void number(std::string digits) {
    if (m_comma) std::replace(digits.begin(), digits.end(), '.', ',');
    cell(digits);
  }
  void number(const std::optional<double>& value) { number(value ? decimalText(*value) : std::string()); }
  bool end() {
    m_line += "\r\n";
    m_file.write(m_line.data(), static_cast<qint64>(m_line.size()));
    m_line.clear();
    m_first = true;
    return m_file.error() == QFileDevice::NoError;
  }

private:
  void cell(const std::string& text) {
    if (!m_first) m_line += m_delimiter;
    m_first = false;
    m_line += core::csvCell(text, m_delimiter);
  }
  QSaveFile& m_file;
  bool m_comma;
  char m_delimiter;
  std::string m_line;
  bool m_first = true;
};

void header(TableWriter& out, std::initializer_list<const char*> first, const std::vector<std::string>& keys,
            const char* unit) {
  for (const auto* name : first)
    out.text(name);
  for (const auto& key : keys)
    out.text(key + " (" + unit + ")");
}

std::string hazardsOf(const Json& product) {
  std::string out;
  if (!product.contains("hazards")) return out;
  for (const auto& code : product["hazards"])
    out += (out.empty() ? "" : " ") + code.get<std::string>();
  return out;
}

Trouble products(Store& store, TableWriter& out) {
  header(out,
         {"product", "formula", "purity (%)", "price (per kg)", "density (kg/L)", "bag (kg)", "currency",
          "colour", "hatch", "hazards", "note"},
         labelKeys(), "%");
  out.end();
  return store.eachRecord(Kind::Product, [&](const Record& record, Moment) {
    if (record.binnedAt) return true;
    const auto& b = record.body;
    out.text(cellText(b, "/name"));
    out.text(cellText(b, "/entry/formula"));
    for (const auto* key : {"/entry/purity_percent", "/entry/price_per_kg", "/entry/density_kg_per_l"})
      out.number(cellText(b, key));
    out.number(cellText(b, "/bag/unit") == "kg" ? cellText(b, "/bag/amount") : std::string());
    for (const auto* key : {"/currency", "/colour", "/hatch"})
      out.text(cellText(b, key));
    out.text(hazardsOf(b));
    out.text(cellText(b, "/note"));
    for (const auto& key : labelKeys())
      out.number(rowValue(b, "/entry/label", "key", key, "percent"));
    return out.end();
  });
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
  const auto digits = cellText(report, "/water/ec/amount"), unit = cellText(report, "/water/ec/unit");
  if (unit == "mS/cm" || digits.empty()) return digits;
  const auto value = core::parseDecimal(digits);
  const auto turned = core::convert(value.value_or(0), unit, "mS/cm");
  return value && turned ? core::decimalText(*turned) : std::string();
}

Trouble waters(Store& store, TableWriter& out) {
  header(out, {"water", "date", "laboratory", "pH", "EC (mS/cm)"}, waterKeys(), "mg/L");
  out.end();
  return store.eachRecord(Kind::Water, [&](const Record& record, Moment) {
    if (record.binnedAt) return true;
    for (const auto& report : record.body.value("reports", Json::array())) {
      out.text(cellText(record.body, "/name"));
      out.text(cellText(report, "/date"));
      out.text(cellText(report, "/laboratory"));
      out.number(cellText(report, "/water/ph"));
      out.number(milliSiemensIn(report));
      for (const auto& key : waterKeys())
        out.number(milligramsIn(report, key));
      if (!out.end()) return false;
    }
    return true;
  });
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

Trouble targets(Store& store, TableWriter& out) {
  std::vector<std::string> keys;
  for (const auto nutrient : core::allNutrients)
    keys.emplace_back(core::nutrientKey(nutrient));
  header(out, {"target", "crop", "stage", "season", "from_week", "note"}, keys, "mg/L");
  header(out, {}, keys, "band %");
  out.end();
  return store.eachRecord(Kind::Target, [&](const Record& record, Moment) {
    if (record.binnedAt) return true;
    for (const auto* key : {"/name", "/crop", "/stage", "/season", "/from_week", "/note"})
      out.text(cellText(record.body, key));
    for (const auto& key : keys)
      out.number(wantedIn(record.body, key));
    for (const auto& key : keys)
      out.number(rowValue(record.body, "/target/rows", "nutrient", key, "tolerance_percent"));
    return out.end();
  });
}

Trouble batches(Store& store, TableWriter& out) {
  header(out,
         {"batch", "time", "formula", "crop", "water", "volume (L)", "EC planned (mS/cm)", "EC read (mS/cm)",
          "pH read", "who", "note", "product", "tank", "planned (g)", "actual (g)", "lot"},
         {}, "");
  out.end();
  return store.eachRecord(Kind::Batch, [&](const Record& record, Moment) {
    const auto batch = batchFromJson(record.body);
    if (record.binnedAt || !batch) return true;
    const auto head = [&] {
      for (const auto& text :
           {record.ref.uid, batch->at.iso(), batch->formulaName, batch->crop, batch->waterName})
        out.text(text);
      out.number(batch->litres);
      out.number(batch->ecPlanned);
      out.number(batch->ecReadMilliSiemens());
      out.number(batch->phRead.value_or(""));
      out.text(batch->who);
      out.text(batch->note);
    };
    for (const auto& w : batch->weights) {
      head();
      out.text(w.productName);
      out.text(w.tank);
      out.number(w.plannedGrams);
      out.number(w.actualGrams());
      out.text(w.lot);
      if (!out.end()) return false;
    }
    if (!batch->weights.empty()) return true;
    head();
    for (int i = 0; i < 5; ++i)
      out.text("");
    return out.end();
  });
}

Trouble readings(Store& store, TableWriter& out) {
  header(out, {"tank", "time", "quantity", "value", "unit"}, {}, "");
  out.end();
  return store.eachReading([&](const Reading& r, std::optional<Moment> binned) {
    if (binned) return true;
    out.text(r.tank);
    out.text(r.at.iso());
    out.text(r.quantity);
    out.number(r.value);
    out.text(unitOf(r.quantity).value_or(""));
    return out.end();
  });
}

} // namespace

Trouble writeTable(Store& store, Kind kind, const std::string& path, bool decimalComma) {
  QSaveFile file(QString::fromStdString(path));
  const auto failed = [&] {
    return core::problemAt(core::ProblemCode::BadFile, path,
                           {"it can't be written: " + file.errorString().toStdString()});
  };
  if (!file.open(QIODevice::WriteOnly)) return failed();
  TableWriter out(file, decimalComma);
  Trouble trouble;
  if (kind == Kind::Product)
    trouble = products(store, out);
  else if (kind == Kind::Water)
    trouble = waters(store, out);
  else if (kind == Kind::Target)
    trouble = targets(store, out);
  else if (kind == Kind::Batch)
    trouble = batches(store, out);
  else
    trouble = readings(store, out);
  if (trouble) return trouble;
  if (file.error() != QFileDevice::NoError || !file.commit()) return failed();
  return std::nullopt;
}

} // namespace butte::book
