#include "script_stock.h"

#include "base/decimal.h"
#include "script_modes.h"
#include "things/figures.h"
#include "things/things.h"
#include "typed_numbers.h"
#include "water/water_solutes.h"

#include <array>
#include <cmath>
#include <numeric>

namespace butte::exchange {
namespace {

using namespace core;

std::optional<double> inRange(ObjectReader& reader, std::string_view key, double low, double high,
                              std::string_view unit) {
  return figure(reader, Dialect::Script, {key, key, unit, low, high});
}

std::optional<double> positive(ObjectReader& reader, std::string_view key) {
  const auto value = reader.number(key);
  if (value && !(*value > 0)) {
    reader.fail(ProblemCode::NotAbove, key, {decimalText(*value), "0", ""});
    return std::nullopt;
  }
  return value;
}

std::optional<double> notNegative(ObjectReader& reader, std::string_view key) {
  return figure(reader, Dialect::Script, {key, key, ""});
}

std::optional<Conductivity> conductivity(ObjectReader& reader, std::string_view key) {
  const auto value = notNegative(reader, key);
  return value ? std::optional(Conductivity::fromMilliSiemensPerCm(*value)) : std::nullopt;
}

std::optional<Volume> litres(ObjectReader& reader, std::string_view key, bool mayBeZero = false) {
  const auto value = mayBeZero ? notNegative(reader, key) : positive(reader, key);
  return value ? std::optional(Volume::fromLitres(*value)) : std::nullopt;
}

Tank readNamedTank(const std::string& name, const Json& value, const Water& source,
                   std::optional<Problem>& problem) {
  ObjectReader reader(value, "stock.tanks." + name, problem);
  Tank tank;
  tank.name = name;
  readTank(reader, Dialect::Script, tank);
  if (const auto* with = reader.any("made_with")) {
    if (with->is_object())
      tank.makeUpPerLitre =
          waterSolutes(readScriptWater(*with, "stock.tanks." + name + ".made_with", problem)).perLitre;
    else if (*with == "source")
      tank.makeUpPerLitre = waterSolutes(source).perLitre;
    else if (*with != "pure")
      reader.fail(ProblemCode::OutOfRange, "made_with", {with->dump(), "\"pure\", \"source\" or a water"});
  }
  reader.finish();
  return tank;
}

void placeByHand(const TankByHand& hand, StockPlan& plan, std::optional<Problem>& problem) {
  if (problem) return;
  std::string names;
  for (const auto& tank : plan.tanks)
    names += (names.empty() ? "" : " ") + tank.name;
  std::vector<double> shares(plan.tanks.size(), 0.0);
  const auto set = [&](const std::string& name, double share) {
    for (std::size_t t = 0; t < plan.tanks.size(); ++t) {
      if (plan.tanks[t].name == name) {
        shares[t] = share;
        return;
      }
    }
    if (!problem) problem = problemAt(ProblemCode::UnknownTank, hand.path, {name, names});
  };
  if (hand.value.is_string()) {
    set(hand.value.get<std::string>(), 1);
  } else if (hand.value.is_object()) {
    ObjectReader reader(hand.value, hand.path, problem);
    for (const auto& [name, share] : hand.value.items())
      set(name, notNegative(reader, name).value_or(0));
    const double sum = std::accumulate(shares.begin(), shares.end(), 0.0);
    if (!problem && std::abs(sum - 1) > 1e-6)
      problem = problemAt(ProblemCode::OutOfRange, hand.path, {decimalText(sum), "shares that add up to 1"});
  } else {
    problem = problemAt(ProblemCode::WrongType, hand.path,
                        {"a tank's name or shares per tank", typeName(hand.value)});
  }
  plan.shares[hand.product] = std::move(shares);
}

std::vector<double> numbers(ObjectReader& reader, std::string_view key, double low, double high,
                            const char* right) {
  std::vector<double> out;
  const auto* list = reader.array(key);
  for (std::size_t i = 0; list && i < list->size(); ++i) {
    const bool good =
        (*list)[i].is_number() && (*list)[i].get<double>() >= low && (*list)[i].get<double>() <= high;
    if (!good) reader.fail(ProblemCode::OutOfRange, key, {(*list)[i].dump(), right});
    if (good) out.push_back((*list)[i].get<double>());
  }
  return out;
}

void readScales(ObjectReader& reader, std::vector<Scale>& scales) {
  const auto* list = reader.array("scales");
  for (std::size_t i = 0; list && i < list->size() && !reader.failed(); ++i) {
    Scale usual;
    usual.name = "scale " + std::to_string(i + 1);
    scales.push_back(
        readScale((*list)[i], item(reader.pathOf("scales"), i), Dialect::Script, usual, reader.sink()));
  }
}

void readQuestions(ObjectReader& reader, ScriptStock& out) {
  out.nightsCelsius = numbers(reader, "nights_c", -5, 100, "numbers from -5 to 100 degC");
  if (const auto* object = reader.object("dissolve")) {
    ObjectReader dissolve(*object, reader.pathOf("dissolve"), reader.sink());
    DissolvingPlan plan;
    readDissolving(dissolve, Dialect::Script, plan);
    plan.firstShare = inRange(dissolve, "first_share", 0.05, 1, "").value_or(plan.firstShare);
    dissolve.finish();
    out.dissolve = plan;
  }
  readScales(reader, out.scales);
  out.feedPerDay = volumeOf(reader, Dialect::Script, figures::feedPerDay);
  out.fillDays = figure(reader, Dialect::Script, figures::fillDays).value_or(out.fillDays);
  out.seasonDays = figure(reader, Dialect::Script, figures::seasonDays);
}

void readScriptVessel(ObjectReader& top, ScriptDose& out) {
  const auto* object = top.object("vessel");
  if (!object) return;
  ObjectReader reader(*object, "vessel", top.sink());
  out.vessel = readVessel(reader, Dialect::Script);
  out.lineFor = volumeOf(reader, Dialect::Script, figures::lineFor);
  out.levelCm = notNegative(reader, "level_cm");
  reader.finish();
}

void readScriptReservoir(ObjectReader& top, ScriptDose& out) {
  const auto* object = top.object("reservoir");
  if (!object) return;
  ObjectReader reader(*object, "reservoir", top.sink());
  ScriptReservoir r;
  r.volume = volumeOf(reader, Dialect::Script, figures::vesselVolume);
  r.now = conductivityOf(reader, Dialect::Script, figures::vesselReading);
  r.water = conductivity(reader, "ec_water");
  r.target = conductivityOf(reader, Dialect::Script, figures::vesselTarget);
  r.fullStrength = conductivity(reader, "ec_full_strength");
  r.stockMlPerLitre = positive(reader, "stock_ml_per_l");
  r.finished = litres(reader, "finished_l");
  r.present = volumeOf(reader, Dialect::Script, figures::vesselPresent).value_or(Volume{});
  r.lastWater = volumeOf(reader, Dialect::Script, figures::vesselLastWater).value_or(Volume{});
  r.cautious = reader.flag("cautious").value_or(false);
  reader.finish();
  out.reservoir = r;
}

void readDrawDown(ObjectReader& top, ScriptDose& out) {
  const auto* object = top.object("draw_down");
  if (!object) return;
  ObjectReader reader(*object, "draw_down", top.sink());
  out.drawDown.emplace();
  if (const auto* drawn = reader.object("drawn_l")) {
    ObjectReader tanks(*drawn, "draw_down.drawn_l", top.sink());
    for (const auto& [name, value] : drawn->items())
      out.drawDown->drawn.emplace_back(name, Volume::fromLitres(notNegative(tanks, name).value_or(0)));
  }
  if (const auto* made = reader.object("of_plan")) {
    ObjectReader tanks(*made, "draw_down.of_plan", top.sink());
    for (const auto& [name, value] : made->items())
      out.drawDown->ofPlan.emplace_back(name, inRange(tanks, name, 0, 10, "").value_or(1));
  }
  out.drawDown->feed = volumeOf(reader, Dialect::Script, figures::drawnFeed);
  out.drawDown->setpoint = conductivityOf(reader, Dialect::Script, figures::setpoint);
  reader.finish();
}

void readScriptReadings(ObjectReader& top, ScriptDose& out) {
  const auto* list = top.array("readings");
  for (std::size_t i = 0; list && i < list->size() && !top.failed(); ++i) {
    ObjectReader reader((*list)[i], "readings[" + std::to_string(i) + "]", top.sink());
    const auto reading = readDosedReading(reader, Dialect::Script);
    for (const auto& [key, what] :
         {std::pair{"ml_per_l", "the dose of each stock"}, std::pair{"ec", "what the meter read, mS/cm"}}) {
      if (!reader.has(key)) reader.fail(ProblemCode::MissingKey, key, {what});
    }
    reader.finish();
    if (reading) out.readings.push_back(*reading);
  }
}

void readCompare(ObjectReader& top, ScriptDose& out) {
  const auto* object = top.object("compare");
  if (!object) return;
  ObjectReader reader(*object, "compare", top.sink());
  ScriptGap gap;
  gap.expected = conductivity(reader, "ec_expected");
  gap.read = conductivity(reader, "ec_read");
  if (!gap.read) reader.fail(ProblemCode::MissingKey, "ec_read", {"what the meter shows, mS/cm"});
  reader.finish();
  out.compare = gap;
}

} // namespace

void readScriptStock(ObjectReader& top, const std::vector<TankByHand>& byHand, ScriptInput& out) {
  auto& plan = out.given.stock;
  if (const auto* object = top.object("stock")) {
    ObjectReader reader(*object, "stock", top.sink());
    plan.factor = positive(reader, "factor").value_or(100);
    plan.temperature =
        Temperature::fromCelsius(figure(reader, Dialect::Script, figures::coldest).value_or(20));
    plan.marginPercent = figure(reader, Dialect::Script, figures::margin).value_or(plan.marginPercent);
    if (const auto* tanks = reader.object("tanks")) {
      for (const auto& [name, value] : tanks->items()) {
        if (name.starts_with("x_")) continue;
        plan.tanks.push_back(readNamedTank(name, value, out.given.request.water, top.sink()));
      }
    }
    readQuestions(reader, out.stock);
    reader.finish();
  }
  if (plan.tanks.empty()) plan.tanks = {{"A", Volume::fromLitres(1)}, {"B", Volume::fromLitres(1)}};
  for (const auto& hand : byHand)
    placeByHand(hand, plan, top.sink());
}

void readScriptDose(ObjectReader& top, ScriptDose& out) {
  readScriptReservoir(top, out);
  readScriptReadings(top, out);
  readCompare(top, out);
  readDrawDown(top, out);
  readScriptVessel(top, out);
  if (const auto* object = top.object("ratio")) {
    ObjectReader reader(*object, "ratio", top.sink());
    for (int i = 0; i < ratioFormCount; ++i) {
      const auto form = static_cast<RatioForm>(i);
      if (const auto figure = reader.number(ratioKey(form))) out.ratios.emplace_back(form, *figure);
    }
    reader.finish();
    if (out.ratios.size() != 1)
      top.fail(ProblemCode::MissingKey, "ratio",
               {"exactly one of one_to, percent, ml_per_l, ml_per_gal_us, "
                "ml_per_gal_imp, floz_per_gal_us"});
  }
  if (const auto* object = top.object("injector")) {
    ObjectReader reader(*object, "injector", top.sink());
    out.injectorDrawn = litres(reader, "drawn_l");
    out.injectorFeed = litres(reader, "feed_l");
    out.seriesMlPerLitre = numbers(reader, "series_ml_per_l", 0, 1000, "numbers from 0 to 1000");
    reader.finish();
  }
  if (const auto* object = top.object("pump")) {
    ObjectReader reader(*object, "pump", top.sink());
    out.pump = readPump(reader, Dialect::Script);
    out.pumpFeedPerHour = volumeOf(reader, Dialect::Script, figures::feedPerHour);
    if (!out.pumpFeedPerHour) reader.fail(ProblemCode::MissingKey, "feed_per_hour_l", {"the flow of feed"});
    reader.finish();
  }
}

} // namespace butte::exchange
