#include "document/stock_edits.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "stock/stock_as_product.h"
#include "stock_words.h"

#include <algorithm>
#include <cmath>

namespace butte::app {

using exchange::Json;

namespace {

std::string freeName(const Json& tanks, core::TankUse use) {
  if (use == core::TankUse::Acid) return "acid";
  for (char letter = 'A'; letter <= 'Z'; ++letter) {
    const std::string name(1, letter);
    const bool taken =
        std::any_of(tanks.begin(), tanks.end(), [&](const Json& t) { return t.value("name", "") == name; });
    if (!taken) return name;
  }
  return "tank";
}

} // namespace

void StockEdits::put(const QString& words, const Json& stock, const std::string& mergeKey) {
  m_editor.apply({words.toStdString(), {{"/stock", m_editor.json()["stock"], stock}}, mergeKey});
}

void StockEdits::setStock(const QString& words, const std::string& key, const Json& value, bool merge) {
  m_editor.set(words, "/stock/" + key, value, merge);
}

void StockEdits::setTank(std::size_t tank, const QString& words, const std::string& key, const Json& value,
                         bool merge) {
  m_editor.set(words, "/stock/tanks/" + std::to_string(tank) + "/" + key, value, merge);
}

void StockEdits::addTank(core::TankUse use) {
  Json stock = m_editor.json()["stock"];
  auto& tanks = stock["tanks"];
  const auto litres =
      use == core::TankUse::Salts && !tanks.empty() ? tanks[0]["volume"] : exchange::amountJson("60", "L");
  Json tank{{"name", freeName(tanks, use)}, {"volume", litres}};
  if (use != core::TankUse::Salts) tank["use"] = core::tankUseKey(use);
  tanks.push_back(tank);
  exchange::Edit edit{"a tank added", {{"/stock", m_editor.json()["stock"], stock}}, ""};
  const auto& shelf = m_editor.document().given.request.shelf;
  const bool dosed = std::any_of(shelf.begin(), shelf.end(), [](const core::ShelfProduct& p) {
    return p.composition.role == core::ProductRole::Acid;
  });
  const auto& plan = m_editor.document().given.acid;
  if (use == core::TankUse::Acid && !dosed && plan.product) {
    Json list = m_editor.json()["shelf"];
    const int index = m_editor.indexOf(plan.product->id);
    if (index < 0)
      list.push_back(exchange::shelfEntry(plan.product->id));
    else
      list[static_cast<std::size_t>(index)]["on"] = true;
    edit.changes.push_back({"/shelf", m_editor.json()["shelf"], list});
    const auto& dose = m_editor.answer().acid.forWater;
    if (!m_editor.document().given.request.alkalinityLeftMeqPerL && dose)
      edit.changes.push_back(
          {"/alkalinity_left", m_editor.json().value("alkalinity_left", Json()),
           exchange::amountJson(core::decimalText(std::round(dose->alkalinityLeftEqPerLitre * 1e5) / 100),
                                "meq/L")});
  }
  m_editor.apply(edit);
}

void StockEdits::removeTank(std::size_t tank) {
  Json stock = m_editor.json()["stock"];
  stock["tanks"].erase(tank);
  Json placed = Json::array();
  for (auto row : stock.value("placed", Json::array())) {
    auto& list = row["shares"];
    if (tank < list.size() && list[tank] != "0") continue;
    if (tank < list.size()) list.erase(tank);
    placed.push_back(row);
  }
  if (stock.contains("placed")) stock["placed"] = placed;
  put("a tank taken away", stock);
}

void StockEdits::swapFirstNames() {
  const auto& tanks = m_editor.json()["stock"]["tanks"];
  if (tanks.size() < 2) return;
  m_editor.apply({"tank letters swapped",
                  {{"/stock/tanks/0/name", tanks[0]["name"], tanks[1]["name"]},
                   {"/stock/tanks/1/name", tanks[1]["name"], tanks[0]["name"]}},
                  ""});
}

/// Where a product stands now, whoever put it there: a share per tank.
Json StockEdits::shares(const std::string& product) const {
  const auto& tanks = m_editor.answer().stock.tanks;
  const auto& shelf = m_editor.document().given.request.shelf;
  std::vector<double> feeds(tanks.size(), 0.0);
  double sum = 0;
  for (std::size_t t = 0; t < tanks.size(); ++t) {
    for (const auto& item : tanks[t].items) {
      if (shelf[item.product].id != product) continue;
      feeds[t] = item.strength.gramsPerLitre() / tanks[t].factor;
      sum += feeds[t];
    }
  }
  Json out = Json::array();
  for (const double feed : feeds)
    out.push_back(core::decimalText(sum > 0 ? feed / sum : 0));
  return out;
}

void StockEdits::move(const std::string& product, std::size_t from, std::size_t to, bool half) {
  const auto tankCount = m_editor.answer().stock.tanks.size();
  if (to >= tankCount || from == to) return;
  Json list = shares(product);
  const auto at = [&](std::size_t t) { return core::parseDecimal(list[t].get<std::string>()).value_or(0); };
  const bool apart = from >= tankCount; // it stood in no tank
  const double whole = apart ? 1 : at(from);
  const double moved = half ? whole / 2 : whole;
  double others = 0;
  for (std::size_t t = 0; t < tankCount; ++t) {
    if (t != from && t != to) others += at(t);
  }
  const double stays = apart ? 0 : whole - moved;
  if (!apart) list[from] = core::decimalText(stays);
  list[to] = core::decimalText(1 - others - stays); // the sum is 1 whatever the digits
  Json stock = m_editor.json()["stock"];
  Json placed = Json::array();
  for (const auto& row : stock.value("placed", Json::array())) {
    if (row["product"] != product) placed.push_back(row);
  }
  placed.push_back({{"product", product}, {"shares", list}});
  stock["placed"] = placed;
  const auto& name = m_editor.answer().stock.tanks[to].tank.name;
  put(QString("%1%2 into tank %3")
          .arg(half ? "half of " : "", QString::fromStdString(m_editor.nameOf(product)),
               QString::fromStdString(name)),
      stock);
}

void StockEdits::byRules(const std::string& product) {
  Json stock = m_editor.json()["stock"];
  Json placed = Json::array();
  for (const auto& row : stock.value("placed", Json::array())) {
    if (row["product"] != product) placed.push_back(row);
  }
  stock["placed"] = placed;
  put(QString::fromStdString(m_editor.nameOf(product)) + " back to its own tank", stock);
}

bool StockEdits::isByHand(const std::string& product) const {
  return m_editor.document().given.stock.shares.contains(product);
}

void StockEdits::keepAsProduct(std::size_t tank) {
  const auto& content = m_editor.answer().stock.tanks[tank];
  const auto& products = m_editor.document().given.request.shelf;
  const auto stock = core::stockAsProduct(products, content);
  Json label = Json::array();
  for (const auto& [key, percent] : stock.percentByMass)
    label.push_back({{"key", key}, {"percent", words::figure(percent)}});
  Json shelf = m_editor.json()["shelf"];
  std::string id = "own_stock_" + content.tank.name;
  while (m_editor.indexOf(id) >= 0)
    id += "_";
  const auto name = "stock " + words::tankTitle(products, content);
  shelf.push_back({{"id", id},
                   {"name", name},
                   {"label", label},
                   {"liquid", true},
                   {"density_kg_per_l", words::figure(stock.densityKgPerLitre)},
                   {"on", false}});
  m_editor.apply({name + " onto the shelf", {{"/shelf", m_editor.json()["shelf"], shelf}}, ""});
}

bool StockEdits::acidToAimedPh() {
  const auto& dose = m_editor.answer().acid.forWater;
  if (!dose) return false;
  const auto left = std::round(dose->alkalinityLeftEqPerLitre * 1e5) / 100; // to 0.01 meq/L
  m_editor.set("acid to the aimed pH", "/alkalinity_left",
               exchange::amountJson(core::decimalText(std::max(0.0, left)), "meq/L"));
  return true;
}

namespace {

constexpr std::size_t readingRows = 3;

/// Lists of dosing are whole from the first figure on: an empty object for every tank or reading.
void makeListOf(Json& dosing, const std::string& key, std::size_t count) {
  auto& list = dosing[key];
  if (!list.is_array()) list = Json::array();
  while (list.size() < count)
    list.push_back(Json::object());
}

Json::json_pointer pointerTo(const std::string& path) {
  return Json::json_pointer("/" + path);
}

} // namespace

void StockEdits::setDosing(const QString& words, const std::string& path, const Json& value, bool merge) {
  Json dosing = m_editor.json().value("dosing", Json::object());
  const auto place = pointerTo(path);
  if (value.is_null()) {
    if (dosing.contains(place)) {
      auto& parent = dosing[place.parent_pointer()];
      if (parent.is_object()) parent.erase(place.back());
    }
  } else {
    const auto list = path.substr(0, path.find('/'));
    if (list == "readings") makeListOf(dosing, list, readingRows);
    if (list == "pumps" || list == "drawn") makeListOf(dosing, list, m_editor.document().tanks.size());
    dosing[place] = value;
  }
  m_editor.apply({words.toStdString(),
                  {{"/dosing", m_editor.json().value("dosing", Json()), dosing}},
                  merge ? "/dosing/" + path : std::string()});
}

Json StockEdits::dosing(const std::string& path) const {
  const auto dosing = m_editor.json().value("dosing", Json::object());
  const auto place = pointerTo(path);
  return dosing.contains(place) ? dosing[place] : Json();
}

} // namespace butte::app
