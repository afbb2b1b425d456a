#include "edits/stock_edits.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "edit.h"
#include "formula_json.h"
#include "stock/stock_as_product.h"
#include "stock_words.h"
#include "wording/tr.h"

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

/// As few digits as keep the ratio to a thousandth.
std::string ratioDigits(double figure) {
  double step = 1;
  while (step > figure / 1000)
    step /= 10;
  return core::decimalText(std::round(figure / step) * step);
}

} // namespace

void StockEdits::put(const Deed& deed, const Json& stock) {
  m_editor.apply({deed, {{"/stock", json()["stock"], stock}}, {}});
}

core::RatioForm StockEdits::form() const {
  return statedRatioForm(m_editor);
}

core::RatioForm statedRatioForm(const FormulaEditor& editor) {
  const auto stock = editor.json().find("stock");
  const auto key = stock == editor.json().end() ? std::string() : stock->value("factor_form", std::string());
  for (int i = 0; i < core::ratioFormCount; ++i) {
    if (key == core::ratioKey(static_cast<core::RatioForm>(i))) return static_cast<core::RatioForm>(i);
  }
  return core::RatioForm::OneTo;
}

void StockEdits::setStrength(const QString& digits) {
  set({DeedCode::StockStrength, {digits.toStdString()}}, "/stock/factor", digits.toStdString(), true);
}

void StockEdits::setForm(core::RatioForm form) {
  const auto& stock = json()["stock"];
  const auto key = std::string(core::ratioKey(form));
  const auto digits = ratioDigits(core::figureOf(form, m_editor.document().given.stock.factor));
  m_editor.apply({{DeedCode::DilutionStated, {key}},
                  {{"/stock/factor_form", stock.value("factor_form", Json()), key},
                   {"/stock/factor", stock["factor"], digits}},
                  ""});
}

void StockEdits::setFactor(double factor) {
  set({DeedCode::StockRatio, {core::decimalText(factor)}}, "/stock/factor",
      ratioDigits(core::figureOf(form(), factor)), true);
}

void StockEdits::setColdest(const Amount& coldest) {
  set({DeedCode::ColdestTank, {digitsIn(coldest, "C").toStdString()}}, "/stock/coldest",
      exchange::figureJson(coldest), true);
}

void StockEdits::setMargin(const QString& percent) {
  set({DeedCode::StockMargin, {percent.toStdString()}}, "/stock/margin_percent", percent.toStdString(), true);
}

void StockEdits::setTankName(std::size_t tank, const QString& name) {
  set({DeedCode::TankNamed, {name.toStdString()}}, place(tank, "name"), name.toStdString(), true);
}

void StockEdits::setTankVolume(std::size_t tank, const exchange::Amount& volume) {
  set({DeedCode::TankVolume, {volume.digits, volume.unit}}, place(tank, "volume"),
      exchange::figureJson(volume), true);
}

void StockEdits::setOwnRatio(std::size_t tank, const QString& digits) {
  set(digits.isEmpty() ? Deed{DeedCode::TankRatioOfAll, {}}
                       : Deed{DeedCode::TankOwnRatio, {digits.toStdString()}},
      place(tank, "own_factor"), exchange::figureJson(typed(digits)), true);
}

void StockEdits::setTankUse(std::size_t tank, core::TankUse use) {
  const auto key = std::string(core::tankUseKey(use));
  set({DeedCode::TankUsed, {key}}, place(tank, "use"), key);
}

void StockEdits::setMadeWithPure(std::size_t tank) {
  set({DeedCode::TankMadeWithPure, {}}, place(tank, "made_with"), "pure");
}

void StockEdits::setMadeWithBlend(std::size_t tank) {
  set({DeedCode::TankMadeWithBlend, {}}, place(tank, "made_with"), "blend");
}

void StockEdits::setMadeWithSource(std::size_t tank, std::size_t source, const QString& name) {
  set({DeedCode::TankMadeWithSource, {name.toStdString()}}, place(tank, "made_with"),
      "part:" + std::to_string(source));
}

TypedVessel StockEdits::vessel(std::size_t tank) const {
  const auto cm = [&](const char* key) { return figure(place(tank, "vessel") + "/" + key).digits; };
  return {cm("across_cm"), cm("along_cm"), cm("height_cm")};
}

void StockEdits::setVessel(std::size_t tank, const char* key, const QString& text) {
  const auto& stored = json()["stock"]["tanks"][tank];
  Json vessel =
      stored.contains("vessel") && stored["vessel"].is_object() ? stored["vessel"] : Json{{"shape", "round"}};
  if (text.isEmpty())
    vessel.erase(key);
  else
    vessel[key] = text.toStdString();
  set({DeedCode::TankVessel, {}}, place(tank, "vessel"), vessel, true);
}

void StockEdits::setVesselShape(std::size_t tank, core::VesselShape shape) {
  setVessel(tank, "shape", QString::fromStdString(std::string(core::vesselShapeKey(shape))));
}

void StockEdits::setVesselUnknown(std::size_t tank) {
  set({DeedCode::TankVesselUnknown, {}}, place(tank, "vessel"), Json());
}

void StockEdits::addTank(core::TankUse use) {
  Json stock = json()["stock"];
  auto& tanks = stock["tanks"];
  const auto litres =
      use == core::TankUse::Salts && !tanks.empty() ? tanks[0]["volume"] : exchange::amountJson("60", "L");
  Json tank{{"name", freeName(tanks, use)}, {"volume", litres}};
  if (use != core::TankUse::Salts) tank["use"] = core::tankUseKey(use);
  tanks.push_back(tank);
  exchange::Edit edit{{DeedCode::TankAdded, {}}, {{"/stock", json()["stock"], stock}}, ""};
  const auto& shelf = m_editor.document().given.request.shelf;
  const bool dosed = std::any_of(shelf.begin(), shelf.end(), [](const core::ShelfProduct& p) {
    return p.composition.role == core::ProductRole::Acid;
  });
  const auto& plan = m_editor.document().given.acid;
  if (use == core::TankUse::Acid && !dosed && plan.product) {
    Json list = json()["shelf"];
    const int index = m_editor.indexOf(plan.product->id);
    if (index < 0)
      list.push_back(exchange::shelfEntry(plan.product->id));
    else
      list[static_cast<std::size_t>(index)]["on"] = true;
    edit.changes.push_back({"/shelf", json()["shelf"], list});
    const auto& dose = m_editor.answer().acid.forWater;
    if (!m_editor.document().given.request.alkalinityLeftMeqPerL && dose)
      edit.changes.push_back(
          {"/alkalinity_left", json().value("alkalinity_left", Json()),
           exchange::amountJson(core::decimalText(std::round(dose->alkalinityLeftEqPerLitre * 1e5) / 100),
                                "meq/L")});
  }
  m_editor.apply(edit);
}

void StockEdits::removeTank(std::size_t tank) {
  Json stock = json()["stock"];
  stock["tanks"].erase(tank);
  Json placed = Json::array();
  for (auto row : stock.value("placed", Json::array())) {
    auto& list = row["shares"];
    if (tank < list.size() && list[tank] != "0") continue;
    if (tank < list.size()) list.erase(tank);
    placed.push_back(row);
  }
  if (stock.contains("placed")) stock["placed"] = placed;
  put({DeedCode::TankRemoved, {}}, stock);
}

void StockEdits::swapFirstNames() {
  const auto& tanks = json()["stock"]["tanks"];
  if (tanks.size() < 2) return;
  m_editor.apply({{DeedCode::LettersSwapped, {}},
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
  Json stock = json()["stock"];
  Json placed = placedWithout(product);
  placed.push_back({{"product", product}, {"shares", list}});
  stock["placed"] = placed;
  put({half ? DeedCode::HalfMovedToTank : DeedCode::MovedToTank,
       {m_editor.nameOf(product), m_editor.answer().stock.tanks[to].tank.name}},
      stock);
}

/// What stands somewhere by hand, but for this product.
Json StockEdits::placedWithout(const std::string& product) const {
  Json placed = Json::array();
  for (const auto& row : json()["stock"].value("placed", Json::array())) {
    if (row["product"] != product) placed.push_back(row);
  }
  return placed;
}

void StockEdits::byRules(const std::string& product) {
  Json stock = json()["stock"];
  stock["placed"] = placedWithout(product);
  put({DeedCode::BackToRules, {m_editor.nameOf(product)}}, stock);
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
    label.push_back({{"key", key}, {"percent", words::digits(percent)}});
  Json shelf = json()["shelf"];
  std::string id = "own_stock_" + content.tank.name;
  while (m_editor.indexOf(id) >= 0)
    id += "_";
  const auto name =
      tr("stock %1").arg(QString::fromStdString(words::tankTitle(products, content))).toStdString();
  shelf.push_back({{"id", id},
                   {"name", name},
                   {"label", label},
                   {"liquid", true},
                   {"density_kg_per_l", words::digits(stock.densityKgPerLitre)},
                   {"on", false}});
  m_editor.apply({{DeedCode::StockOntoShelf, {name}}, {{"/shelf", json()["shelf"], shelf}}, ""});
}

bool StockEdits::acidToAimedPh() {
  const auto& dose = m_editor.answer().acid.forWater;
  if (!dose) return false;
  const auto left = std::round(dose->alkalinityLeftEqPerLitre * 1e5) / 100; // to 0.01 meq/L
  set({DeedCode::AcidToAimedPh, {}}, "/alkalinity_left",
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

void StockEdits::setInDosing(const Deed& deed, const std::string& path, const Json& value, bool merge) {
  Json dosing = json().value("dosing", Json::object());
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
  m_editor.apply({deed,
                  {{"/dosing", json().value("dosing", Json()), dosing}},
                  merge ? "/dosing/" + path : std::string()});
}

void StockEdits::setDosing(const std::string& path, const exchange::Amount& figure) {
  setInDosing(figure.isEmpty() ? Deed{DeedCode::DosingAsUsual, {path}}
                               : Deed{DeedCode::DosingFigure, {path, figure.digits, figure.unit}},
              path, exchange::figureJson(figure), true);
}

void StockEdits::switchDosing(const std::string& path, bool on) {
  setInDosing({on ? DeedCode::DosingOn : DeedCode::DosingOff, {path}}, path, on, false);
}

void StockEdits::setDevice(exchange::DosingDevice device) {
  const auto key = std::string(exchange::deviceKey(device));
  setInDosing({DeedCode::DosedBy, {key}}, "device", key, false);
}

void StockEdits::setMixedOn(const QString& date) {
  setInDosing(date.isEmpty() ? Deed{DeedCode::MixedOnDropped, {}}
                             : Deed{DeedCode::MixedOn, {date.toStdString()}},
              "mixed_on", date.isEmpty() ? Json() : Json(date.toStdString()), true);
}

void StockEdits::setBeside(const std::string& formulaUid, const QString& name) {
  setInDosing(formulaUid.empty() ? Deed{DeedCode::NoSecondSet, {}}
                                 : Deed{DeedCode::SecondSet, {name.toStdString()}},
              "beside", formulaUid.empty() ? Json() : Json(formulaUid), false);
}

} // namespace butte::app
