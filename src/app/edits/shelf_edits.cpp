#include "edits/shelf_edits.h"

#include "document/formula_editor.h"
#include "formula_json.h"

namespace butte::app {

using exchange::Amount;
using exchange::Json;

namespace {

std::string place(int index, const char* key) {
  return "/shelf/" + std::to_string(index) + "/" + key;
}

void setText(Json& product, const char* key, const std::string& text) {
  if (text.empty())
    product.erase(key);
  else
    product[key] = text;
}

void setAmount(Json& product, const char* key, const Amount& amount) {
  if (amount.isEmpty())
    product.erase(key);
  else
    product[key] = exchange::figureJson(amount);
}

void setComposition(Json& product, const TypedProduct& typed) {
  for (const char* key : {"label", "formula", "purity_percent", "liquid", "density_kg_per_l"})
    product.erase(key);
  if (!typed.densityKgPerL.empty()) {
    product["liquid"] = true;
    product["density_kg_per_l"] = typed.densityKgPerL;
  }
  product["name"] = typed.name;
  if (typed.byFormula) {
    product["formula"] = typed.formula;
    setText(product, "purity_percent", typed.purityPercent);
    return;
  }
  Json rows = Json::array();
  for (const auto& [key, percent] : typed.label)
    rows.push_back({{"key", key}, {"percent", percent}});
  product["label"] = rows;
}

} // namespace

void ShelfEdits::setOn(const std::string& id, bool on) {
  const int at = m_editor.indexOf(id);
  if (at >= 0)
    set({on ? DeedCode::ProductOn : DeedCode::ProductOff, {m_editor.nameOf(id)}}, place(at, "on"), on);
}

void ShelfEdits::hold(const std::string& id, const Amount& weight, bool merge) {
  const int at = m_editor.indexOf(id);
  if (at < 0) return;
  const auto name = m_editor.nameOf(id);
  set(weight.isEmpty() ? Deed{DeedCode::ProductFree, {name}}
                       : Deed{DeedCode::ProductHeld, {name, weight.digits, weight.unit}},
      place(at, "held"), exchange::figureJson(weight), merge);
}

void ShelfEdits::add(const std::string& catalogueId, const QString& name) {
  if (m_editor.indexOf(catalogueId) >= 0) return setOn(catalogueId, true);
  Json shelf = json()["shelf"];
  shelf.push_back(exchange::shelfEntry(catalogueId));
  set({DeedCode::ProductAdded, {name.toStdString()}}, "/shelf", shelf);
}

void ShelfEdits::remove(const std::string& id) {
  const int at = m_editor.indexOf(id);
  if (at < 0) return;
  Json shelf = json()["shelf"];
  shelf.erase(static_cast<std::size_t>(at));
  set({DeedCode::ProductRemoved, {m_editor.nameOf(id)}}, "/shelf", shelf);
}

void ShelfEdits::holdAll(const std::vector<std::pair<std::size_t, Amount>>& weights) {
  Json shelf = json()["shelf"];
  for (const auto& [index, weight] : weights)
    shelf[index]["held"] = exchange::figureJson(weight);
  set({DeedCode::CropWeightsHeld, {}}, "/shelf", shelf);
}

TypedProduct ShelfEdits::typedProduct(const std::string& id) const {
  TypedProduct out;
  const int at = m_editor.indexOf(id);
  if (at < 0) return out;
  const auto& product = json()["shelf"][static_cast<std::size_t>(at)];
  const auto text = [&](const char* key) { return product.value(key, std::string()); };
  const auto amount = [&](const char* key) {
    return product.contains(key) ? exchange::figureFrom(product[key]) : Amount{};
  };
  out.name = text("name");
  out.formula = text("formula");
  out.purityPercent = text("purity_percent");
  out.densityKgPerL = text("density_kg_per_l");
  out.pricePerKg = text("price_per_kg");
  out.bagPrice = text("bag_price");
  out.contentErrorPercent = text("content_error_percent");
  out.code = text("code");
  out.bag = amount("bag");
  out.step = amount("step");
  out.tenTeaspoons = amount("ten_teaspoons");
  out.byFormula = product.contains("formula");
  for (const auto& row : product.value("label", Json::array()))
    out.label.emplace_back(row.value("key", std::string()), row.value("percent", std::string()));
  return out;
}

std::optional<core::Problem> ShelfEdits::put(const std::string& id, const TypedProduct& typed, bool own) {
  const int at = m_editor.indexOf(id);
  Json shelf = json()["shelf"];
  Json product = at >= 0 ? shelf[static_cast<std::size_t>(at)] : Json::object();
  setText(product, "price_per_kg", typed.pricePerKg);
  setText(product, "bag_price", typed.bagPrice);
  setText(product, "content_error_percent", typed.contentErrorPercent);
  setText(product, "code", typed.code);
  setAmount(product, "bag", typed.bag);
  setAmount(product, "step", typed.step);
  setAmount(product, "ten_teaspoons", typed.tenTeaspoons);
  if (own) setComposition(product, typed);
  if (at >= 0) {
    shelf[static_cast<std::size_t>(at)] = product;
  } else {
    int number = 1;
    while (m_editor.indexOf("own_" + std::to_string(number)) >= 0)
      ++number;
    product["id"] = "own_" + std::to_string(number);
    product["on"] = true;
    shelf.push_back(product);
  }
  const auto name = product.value("name", m_editor.nameOf(id));
  return m_editor.set({at < 0 ? DeedCode::ProductAdded : DeedCode::ProductChanged, {name}}, "/shelf", shelf);
}

} // namespace butte::app
