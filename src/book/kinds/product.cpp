// A product of the farm's own: formula or label, bag, price, how it looks in pictures.
#include "kinds/kind_info.h"

#include "base/decimal.h"
#include "changes/json_changes.h"
#include "formula_document.h"
#include "formula_json.h"
#include "kinds/parts.h"
#include "product/product.h"
#include "tables/table_columns.h"
#include "tables/table_import.h"
#include "tables/table_writer.h"
#include "things/figure.h"
#include "typed_numbers.h"

#include <sstream>

namespace butte::book {

using core::problemAt;
using core::ProblemCode;
using exchange::ObjectReader;

namespace {

Trouble checkProduct(const Json& body) {
  Trouble problem;
  ObjectReader reader(body, "", problem);
  reader.text("name");
  const auto* entry = reader.object("entry");
  if (!entry) reader.fail(ProblemCode::MissingKey, "entry", {"a product needs its formula or label"});
  exchange::figure(reader, exchange::Dialect::Document, {"", "bag", "kg", 0, 1e6, true, true});
  reader.text("currency");
  exchange::DocumentProduct look;
  exchange::readLook(reader, look);
  reader.text("note");
  reader.finish();
  return problem ? problem : checkPart("shelf", Json::array({*entry}), "");
}

std::vector<core::Change> productChanges(const Json& before, const Json& after) {
  std::vector<core::Change> out;
  const Differences found{before, after, out};
  for (const auto* key : {"name", "note", "currency", "bag", "colour", "hatch", "hazards"})
    found.place(std::string("/") + key, key);
  for (const auto* key : {"formula", "purity_percent", "price_per_kg", "density_kg_per_l"})
    found.place(std::string("/entry/") + key, key);
  found.rows({"/entry/label", "label", "", "key", "percent", "%"});
  return out;
}

/// Keys of a label's rows in a table.
const std::vector<std::string>& labelKeys() {
  static const auto keys = core::labelKeys();
  return keys;
}

std::string hazardsOf(const Json& product) {
  std::string out;
  if (!product.contains("hazards")) return out;
  for (const auto& code : product["hazards"])
    out += (out.empty() ? "" : " ") + code.get<std::string>();
  return out;
}

Trouble writeProducts(Store& store, TableWriter& out) {
  out.header({"product", "formula", "purity (%)", "price (per kg)", "density (kg/L)", "bag (kg)", "currency",
              "colour", "hatch", "hazards", "note"},
             labelKeys(), "%");
  out.end();
  return store.eachRecord(Kind::Product, [&](const Record& record, Moment) {
    if (record.binnedAt) return true;
    const auto& b = record.body;
    out.text(textAt(b, "/name"));
    out.text(textAt(b, "/entry/formula"));
    for (const auto* key : {"/entry/purity_percent", "/entry/price_per_kg", "/entry/density_kg_per_l"})
      out.number(textAt(b, key));
    out.number(textAt(b, "/bag/unit") == "kg" ? textAt(b, "/bag/amount") : std::string());
    for (const auto* key : {"/currency", "/colour", "/hatch"})
      out.text(textAt(b, key));
    out.text(hazardsOf(b));
    out.text(textAt(b, "/note"));
    for (const auto& key : labelKeys())
      out.number(rowValue(b, "/entry/label", "key", key, "percent"));
    return out.end();
  });
}

/// What goes into the formula's shelf; nothing, with the words in `wrong`, where a cell is no number.
std::optional<Json> entryOf(const TableImport& import, const core::CsvRow& row, const std::string& name,
                            RowSaid& wrong) {
  Json entry{{"id", "own"}, {"name", name}};
  const std::pair<const char*, const char*> columns[] = {{"purity (%)", "purity_percent"},
                                                         {"price (per kg)", "price_per_kg"},
                                                         {"density (kg/l)", "density_kg_per_l"}};
  for (const auto& [column, key] : columns) {
    const auto figure = import.number(row, column, wrong);
    if (!figure) return std::nullopt;
    if (!figure->digits.empty()) entry[key] = figure->digits;
  }
  if (entry.contains("density_kg_per_l")) entry["liquid"] = true;
  if (const auto formula = import.cell(row, "formula"); !formula.empty()) entry["formula"] = formula;
  Json label = Json::array();
  for (const auto& key : labelKeys()) {
    const auto figure = import.number(row, columnOf(key, "%"), wrong);
    if (!figure) return std::nullopt;
    if (!figure->digits.empty()) label.push_back({{"key", key}, {"percent", figure->digits}});
  }
  if (!label.empty()) entry["label"] = label;
  return entry;
}

RowSaid takeProduct(TableImport& import, const core::CsvRow& row) {
  using words::RowCode;
  const auto name = import.cell(row, "product");
  if (name.empty()) return no(RowCode::NoName);
  Json body = import.known(name).value_or(Json{{"name", name}});
  RowSaid wrong;
  const auto entry = entryOf(import, row, name, wrong);
  if (!entry) return wrong;
  body["entry"] = *entry;
  for (const auto* key : {"currency", "colour", "hatch", "note"}) {
    if (const auto text = import.cell(row, key); !text.empty()) body[key] = text;
  }
  std::istringstream codes(import.cell(row, "hazards"));
  Json hazards = Json::array();
  for (std::string code; codes >> code;)
    hazards.push_back(code);
  if (!hazards.empty()) body["hazards"] = hazards;
  const auto bag = import.number(row, "bag (kg)", wrong);
  if (!bag) return wrong;
  if (!bag->digits.empty()) body["bag"] = exchange::amountJson(bag->digits, "kg");
  return import.put(name, std::move(body), yes(RowCode::Changed, {name}));
}

const TableKind productTable{"product", "products", writeProducts, takeProduct};

} // namespace

const KindInfo kinds::product{.kind = Kind::Product,
                              .code = "product",
                              .one = "product",
                              .many = "products",
                              .check = checkProduct,
                              .changes = productChanges,
                              .table = &productTable};

} // namespace butte::book
