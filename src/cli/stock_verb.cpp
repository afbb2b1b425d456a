/// `butte-cli stock`: tanks for a formula, how strong, how they are made, what reaches the plants.
#include "dose/supply.h"
#include "stock/acid_tank.h"
#include "stock/cold_nights.h"
#include "stock/delivered_feed.h"
#include "stock/pre_stock.h"
#include "stock_words.h"
#include "verb_json.h"

#include <cmath>

namespace butte::cli {

using namespace core;
using exchange::ScriptInput;

namespace {

/// One formula on its way into tanks.
struct Planned {
  const ScriptInput& input;
  std::vector<Mass> grams;
  StockAnswer stock;
  MixResult water;
  const std::vector<ShelfProduct>& shelf() const { return input.given.request.shelf; }
  std::string idOf(std::size_t product) const { return shelf()[product].id; }
};

Json fallenArray(const Planned& plan, const std::vector<Fallen>& fallen) {
  Json out = Json::array();
  for (const auto& f : fallen)
    out.push_back({{"name", f.product ? plan.idOf(*f.product) : f.solid}, {"g_per_l", f.gramsPerLitre}});
  return out;
}

void addItems(Json& tank, const Planned& plan, const TankContent& content) {
  Json grams = Json::object(), strengths = Json::object(), saturation = Json::object();
  for (const auto& item : content.items) {
    grams[plan.idOf(item.product)] = item.mass.grams();
    strengths[plan.idOf(item.product)] = item.strength.gramsPerLitre();
    const bool finite = item.saturation && std::isfinite(*item.saturation);
    saturation[plan.idOf(item.product)] = finite ? Json(*item.saturation) : Json(nullptr);
  }
  for (const auto& solid : content.solids)
    saturation.emplace(solid.name, solid.saturation);
  tank["g"] = grams;
  tank["g_per_l"] = strengths;
  tank["saturation"] = saturation;
}

void addNights(Json& tank, const Planned& plan, const TankContent& content) {
  std::vector<Temperature> temperatures;
  for (const double celsius : plan.input.stock.nightsCelsius)
    temperatures.push_back(Temperature::fromCelsius(celsius));
  Json nights = Json::array();
  for (const auto& night : coldNights(plan.shelf(), content, temperatures)) {
    Json unknown = Json::array();
    for (const auto j : night.unknown)
      unknown.push_back(plan.idOf(j));
    nights.push_back({{"temperature_c", night.temperature.celsius()},
                      {"solids", fallenArray(plan, night.falls)},
                      {"max_factor", unknown.empty() ? optionalNumber(night.maxFactor) : Json(nullptr)},
                      {"not_known", unknown}});
  }
  tank["nights"] = nights;
}

void addDissolving(Json& tank, const Planned& plan, const TankContent& content, const DissolvingPlan& how) {
  const auto made = dissolve(plan.shelf(), content, how);
  if (made.chills.empty() && made.unknown.empty()) return; // nothing dry in it
  Json heats = Json::object();
  for (const auto& chill : made.chills)
    heats[plan.idOf(chill.product)] = chill.kilojoules;
  for (const auto j : made.unknown)
    heats[plan.idOf(j)] = nullptr;
  tank["dissolving"] = Json{{"takes_kj", heats},
                            {"added_water_l", made.addedWater.litres()},
                            {"lowest_c", made.lowest.celsius()},
                            {"finished_c", made.finished.celsius()},
                            {"hot_water_l", made.hot ? Json(made.hot->litres()) : Json(nullptr)}};
}

Json tankObject(const Planned& plan, const TankContent& content) {
  Json tank = Json::object();
  addItems(tank, plan, content);
  tank["solids"] = fallenArray(plan, content.fallen);
  tank["ph"] = optionalNumber(content.ph);
  tank["max_factor"] = optionalNumber(content.maxFactor);
  tank["max_factor_of_known"] = optionalNumber(content.maxFactorOfKnown);
  tank["safe_factor"] = optionalNumber(content.safeFactor);
  tank["limited_by"] = content.limitingProduct         ? Json(plan.idOf(*content.limitingProduct))
                       : content.limitingSolid.empty() ? Json(nullptr)
                                                       : Json(content.limitingSolid);
  tank["holds"] = words::tankSideText(plan.shelf(), content);
  tank["factor"] = content.factor;
  tank["density_kg_per_l"] = content.densityKgPerLitre;
  tank["added_water_l_per_l"] = content.addedWaterLitresPerLitre;
  tank["lost_mg_per_l_of_feed"] = nutrientObject(content.lostMgPerLitreOfFeed);
  Json meetings = Json::array();
  for (const auto& m : content.meetings)
    meetings.push_back({{"a", plan.idOf(m.a)}, {"b", plan.idOf(m.b)}, {"solid", m.solid}});
  tank["meetings"] = meetings;
  if (!plan.input.stock.nightsCelsius.empty()) addNights(tank, plan, content);
  if (plan.input.stock.dissolve) addDissolving(tank, plan, content, *plan.input.stock.dissolve);
  return tank;
}

Json feedObject(const DeliveredFeed& feed) {
  return Json{{"elements_mg_per_l", nutrientObject(feed.milligramsPerLitre)},
              {"ec_ms_per_cm_25c", feed.conductivity.milliSiemensPerCm()},
              {"ph", optionalNumber(feed.ph)}};
}

void addFeeds(Json& out, const Planned& plan) {
  const Delivery delivery(plan.shelf(), plan.grams, plan.input.given.request.volume, plan.stock, plan.water);
  out["feed"] = feedObject(delivery.feed({}));
  Json only = Json::object();
  for (std::size_t t = 0; t < plan.stock.tanks.size(); ++t) {
    std::vector<double> draws(plan.stock.tanks.size(), 0.0);
    draws[t] = 1;
    only[plan.stock.tanks[t].tank.name] = feedObject(delivery.feed(draws));
  }
  out["only"] = only;
}

void addAcidTanks(Json& out, const Planned& plan) {
  for (const auto& acid : acidTanks(plan.shelf(), plan.stock, plan.water)) {
    auto& tank = out["tanks"][plan.stock.tanks[acid.tank].tank.name];
    Json cautions = Json::array();
    for (const auto& line : words::acidTankCautions(plan.shelf()[acid.product], acid.warmsByKelvin))
      cautions.push_back(line);
    tank["acid"] = Json{{"ml", acid.volume ? Json(acid.volume->millilitres()) : Json(nullptr)},
                        {"g", acid.mass.grams()},
                        {"strength_percent", acid.strengthPercent},
                        {"warms_by_k", optionalNumber(acid.warmsByKelvin)},
                        {"water_ph", optionalNumber(acid.waterPh)},
                        {"cautions", cautions}};
  }
}

void addPreStocks(Json& out, const Planned& plan) {
  Json list = Json::array();
  for (const auto& bottle : preStocks(plan.shelf(), plan.stock.tanks, plan.input.stock.scales,
                                      plan.input.given.stock.temperature)) {
    Json grams = Json::object();
    for (const auto& item : bottle.items)
      grams[plan.idOf(item.product)] = item.toWeigh.grams();
    list.push_back({{"tank", plan.stock.tanks[bottle.tank].tank.name},
                    {"g", grams},
                    {"bottle_ml", bottle.bottle.millilitres()},
                    {"ml_per_fill", bottle.perFill.millilitres()},
                    {"fills", bottle.fills},
                    {"clear", bottle.solubilityKnown || !bottle.clear ? Json(bottle.clear) : Json(nullptr)}});
  }
  out["pre_stocks"] = list;
}

void addSupplies(Json& out, const Planned& plan, Volume perDay) {
  const auto& asked = plan.input.stock;
  const auto supplies = suppliesOf(plan.stock, perDay, asked.fillDays);
  Json list = Json::object();
  for (std::size_t t = 0; t < supplies.size(); ++t)
    list[plan.stock.tanks[t].tank.name] = Json{{"feed_per_fill_l", supplies[t].feedPerFill.litres()},
                                               {"drawn_per_day_l", supplies[t].drawnPerDay.litres()},
                                               {"days_per_fill", optionalNumber(supplies[t].daysPerFill)},
                                               {"fill_for_days_l", supplies[t].fillForDays.litres()}};
  out["supplies"] = list;
  if (!asked.seasonDays) return;
  out["season_g"] =
      weightsObject(plan.input.given.request,
                    needFor(plan.grams, plan.input.given.request.volume, perDay, *asked.seasonDays));
}

Result<Outcome> stockOfOne(const ScriptInput& input) {
  Json warnings;
  std::optional<Outcome> unsolved;
  auto grams = weightsForTanks(input, warnings, unsolved);
  if (!grams) return grams.problem();
  if (unsolved) return *unsolved;
  const auto& request = input.given.request;
  Planned plan{input, std::move(grams).value(), {}, {}};
  plan.stock = planStock(request.shelf, plan.grams, request.volume, input.given.stock);
  plan.water = core::mix(request.water, {}, {}, Volume::fromLitres(1));
  Outcome outcome;
  Json tanks = Json::object();
  for (const auto& content : plan.stock.tanks)
    tanks[content.tank.name] = tankObject(plan, content);
  for (const auto& notice : plan.stock.notices)
    warnings.push_back(warning(words::code(notice.kind), words::stockNoticeText(notice)));
  outcome.json["tanks"] = tanks;
  outcome.json["dose_ml_per_l"] = plan.stock.doseMlPerLitre;
  outcome.json["weights_g"] = weightsObject(request, plan.grams);
  addFeeds(outcome.json, plan);
  addAcidTanks(outcome.json, plan);
  if (!input.stock.scales.empty()) addPreStocks(outcome.json, plan);
  if (input.stock.feedPerDay) addSupplies(outcome.json, plan, *input.stock.feedPerDay);
  outcome.json["warnings"] = warnings;
  return outcome;
}

} // namespace

Result<Outcome> stock(const ScriptInput& input) {
  if (input.sets.empty()) return stockOfOne(input);
  Outcome outcome;
  Json sets = Json::object(), together = Json::object();
  for (const auto& [name, set] : input.sets) {
    auto one = stockOfOne(set);
    if (!one) return one.problem();
    outcome.exitCode = std::max(outcome.exitCode, one->exitCode);
    if (one->json.contains("tanks")) {
      for (const auto& [tank, content] : one->json["tanks"].items()) {
        for (const auto& [id, grams] : content["g"].items())
          together[id] = together.value(id, 0.0) + grams.get<double>();
      }
    }
    sets[name] = std::move(one->json);
  }
  outcome.json["sets"] = sets;
  outcome.json["tank_grams_together"] = together;
  return outcome;
}

} // namespace butte::cli
