#include "stock_json.h"

#include "base/decimal.h"
#include "dose/ratio.h"
#include "typed_numbers.h"

#include <array>
#include <cmath>
#include <numeric>
#include <utility>

namespace butte::exchange {
namespace {

using namespace core;

constexpr std::array<std::string_view, 5> devices{"injector", "series", "pumps", "setpoint", "hand"};

/// Position of a text among the known ones; the problem names them all.
template <std::size_t N>
std::size_t choice(ObjectReader& reader, std::string_view key, const std::array<std::string_view, N>& known) {
  const auto text = reader.text(key);
  if (!text) return 0;
  std::string all;
  for (std::size_t i = 0; i < N; ++i) {
    if (*text == known[i]) return i;
    all += (all.empty() ? "" : ", ") + std::string(known[i]);
  }
  reader.fail(ProblemCode::OutOfRange, key, {"'" + *text + "'", all});
  return 0;
}

/// The strength in whatever form it was typed.
std::optional<double> readFactor(ObjectReader& reader) {
  std::array<std::string_view, ratioFormCount> forms;
  for (int i = 0; i < ratioFormCount; ++i)
    forms[static_cast<std::size_t>(i)] = ratioKey(static_cast<RatioForm>(i));
  const auto form = static_cast<RatioForm>(choice(reader, "factor_form", forms));
  const auto figure = digits(reader, "factor", 0, 1e6, "1 to 100000");
  if (!figure || reader.failed()) return std::nullopt;
  const auto factor = factorFrom(form, *figure);
  if (!factor || *factor > 100000) {
    reader.fail(ProblemCode::OutOfRange, "factor", {decimalText(*figure), "a dilution of 1 to 100000"});
    return std::nullopt;
  }
  return *factor;
}

std::optional<Vessel> readVessel(ObjectReader& tank) {
  const auto* object = tank.any("vessel");
  if (!object || object->is_null()) return std::nullopt;
  ObjectReader reader(*object, tank.pathOf("vessel"), tank.sink());
  Vessel v;
  v.shape = readVesselShape(reader);
  const auto cm = [&](const char* key) { return digits(reader, key, 0, 1e5, "0 to 100000 cm").value_or(0); };
  v.acrossCm = cm("across_cm");
  v.alongCm = cm("along_cm");
  v.heightCm = cm("height_cm");
  reader.finish();
  return v;
}

/// The water that a tank is made up with.
MakeUp readMakeUp(ObjectReader& tank, const std::string& with) {
  if (with == "pure") return {};
  if (with == "blend") return {MakeUp::From::Blend, 0};
  if (with.starts_with("part:")) {
    const auto index = parseDecimal(with.substr(5));
    if (index && *index >= 0 && *index == std::floor(*index) && *index < 1e6)
      return {MakeUp::From::Part, static_cast<std::size_t>(*index)};
  }
  tank.fail(ProblemCode::OutOfRange, "made_with", {"'" + with + "'", "\"pure\", \"blend\" or \"part:0\""});
  return {};
}

void readPlaced(ObjectReader& reader, const std::string& path, StockPlan& plan) {
  const auto* list = reader.array("placed");
  for (std::size_t i = 0; list && i < list->size() && !reader.failed(); ++i) {
    const auto where = item(path + ".placed", i);
    ObjectReader row((*list)[i], where, reader.sink());
    const auto product = row.text("product").value_or("");
    const auto* shares = row.array("shares");
    std::vector<double> parts;
    for (std::size_t t = 0; shares && t < shares->size(); ++t) {
      const auto& text = (*shares)[t];
      const double share = text.is_string() ? parseDecimal(text.get<std::string>()).value_or(-1) : -1;
      if (!(share >= 0 && share <= 1))
        row.fail(ProblemCode::OutOfRange, "shares", {text.dump(), "texts from \"0\" to \"1\", one per tank"});
      parts.push_back(share);
    }
    const double sum = std::accumulate(parts.begin(), parts.end(), 0.0);
    if (sum != 0 && std::abs(sum - 1) > 1e-6)
      row.fail(ProblemCode::OutOfRange, "shares", {decimalText(sum), "shares that add up to 1, or all 0"});
    if (parts.size() > plan.tanks.size())
      row.fail(ProblemCode::OutOfRange, "shares",
               {std::to_string(parts.size()),
                "one for each of the " + std::to_string(plan.tanks.size()) + " tanks"});
    row.finish();
    parts.resize(plan.tanks.size());
    plan.shares[product] = std::move(parts);
  }
}

Volume volumeOr(ObjectReader& reader, std::string_view key, Volume otherwise, double least) {
  const auto litres = amount(reader, key, "L", least, 1e9);
  return litres ? Volume::fromLitres(*litres) : otherwise;
}

std::optional<Volume> volumeIf(ObjectReader& reader, std::string_view key) {
  const auto litres = amount(reader, key, "L", 0, 1e9);
  return litres ? std::optional(Volume::fromLitres(*litres)) : std::nullopt;
}

std::optional<Conductivity> conductivityIf(ObjectReader& reader, std::string_view key) {
  const auto value = amount(reader, key, "mS/cm", 0, 500);
  return value ? std::optional(Conductivity::fromMilliSiemensPerCm(*value)) : std::nullopt;
}

Temperature temperatureOr(ObjectReader& reader, std::string_view key, Temperature otherwise) {
  const auto celsius = amount(reader, key, "C", 0, 100);
  return celsius ? Temperature::fromCelsius(*celsius) : otherwise;
}

void readReservoir(ObjectReader& parent, Reservoir& out) {
  const auto* object = parent.object("reservoir");
  if (!object) return;
  ObjectReader reader(*object, parent.pathOf("reservoir"), parent.sink());
  out.volume = volumeOr(reader, "volume", out.volume, 0.001);
  out.present = volumeOr(reader, "present", out.present, 0);
  out.lastWater = volumeOr(reader, "last_water", out.lastWater, 0);
  out.reading = conductivityIf(reader, "reading");
  out.target = conductivityIf(reader, "target");
  out.cautious = reader.flag("cautious").value_or(out.cautious);
  out.withAcid = reader.flag("with_acid").value_or(out.withAcid);
  out.byReadings = reader.flag("by_readings").value_or(out.byReadings);
  reader.finish();
}

void readPumps(ObjectReader& parent, DosingDocument& out) {
  const auto* list = parent.array("pumps");
  for (std::size_t i = 0; list && i < list->size() && !parent.failed(); ++i) {
    ObjectReader reader((*list)[i], item(parent.pathOf("pumps"), i), parent.sink());
    DosingPump pump;
    if (const auto ml = digits(reader, "ml_per_run", 1e-6, 1e6, "above 0 mL"))
      pump.perRun = Volume::fromMillilitres(*ml);
    if (const auto ml = digits(reader, "ml_per_minute", 0, 1e7, "0 mL or more"))
      pump.perMinute = Volume::fromMillilitres(*ml);
    reader.finish();
    out.pumps.push_back(pump);
  }
}

void readDrawn(ObjectReader& parent, DosingDocument& out) {
  const auto* list = parent.array("drawn");
  for (std::size_t i = 0; list && i < list->size() && !parent.failed(); ++i) {
    ObjectReader reader((*list)[i], item(parent.pathOf("drawn"), i), parent.sink());
    const auto volume = volumeIf(reader, "volume");
    const auto ofPlan = digits(reader, "of_plan_percent", 0, 1000, "0 to 1000 % of the planned salts");
    reader.finish();
    if (i >= out.drawn.size()) continue;
    out.drawn[i] = volume;
    if (ofPlan) out.ofPlan[i] = *ofPlan / 100;
  }
  out.drawnFeed = volumeIf(parent, "drawn_feed");
}

void readReadings(ObjectReader& parent, DosingDocument& out) {
  const auto* list = parent.array("readings");
  for (std::size_t i = 0; list && i < list->size() && !parent.failed(); ++i) {
    ObjectReader reader((*list)[i], item(parent.pathOf("readings"), i), parent.sink());
    const auto dose = digits(reader, "ml_per_l", 0, 1000, "0 to 1000 mL per litre");
    const auto reading = conductivityIf(reader, "ec");
    reader.finish();
    if (dose && reading) out.readings.push_back({*dose, *reading});
  }
}

} // namespace

TankUse readTankUse(ObjectReader& tank) {
  const auto text = tank.text("use");
  if (!text) return TankUse::Salts;
  const auto use = tankUseFromKey(*text);
  if (!use) tank.fail(ProblemCode::OutOfRange, "use", {"'" + *text + "'", "salts, traces, acid or alone"});
  return use.value_or(TankUse::Salts);
}

VesselShape readVesselShape(ObjectReader& vessel) {
  const auto text = vessel.text("shape");
  if (!text) return VesselShape::Round;
  const auto shape = vesselShapeFromKey(*text);
  if (!shape)
    vessel.fail(ProblemCode::OutOfRange, "shape", {"'" + *text + "'", "round, rectangular or tapered"});
  return shape.value_or(VesselShape::Round);
}

StockPlan readStockDocument(const Json& stock, const std::string& path, std::vector<DocumentTank>& tanks,
                            std::optional<Problem>& problem) {
  StockPlan plan;
  ObjectReader reader(stock, path, problem);
  plan.factor = readFactor(reader).value_or(100);
  plan.temperature = Temperature::fromCelsius(amount(reader, "coldest", "C", -5, 60).value_or(20));
  plan.marginPercent = digits(reader, "margin_percent", 0, 90, "0 to 90 %").value_or(plan.marginPercent);
  const auto* list = reader.array("tanks");
  for (std::size_t i = 0; list && i < list->size(); ++i) {
    ObjectReader tank((*list)[i], item(path + ".tanks", i), problem);
    Tank t;
    t.name = tank.text("name").value_or("");
    t.volume = Volume::fromLitres(amount(tank, "volume", "L", 0.001, 1e7).value_or(1));
    t.use = readTankUse(tank);
    t.ownFactor = digits(tank, "own_factor", 1, 100000, "1 to 100000");
    DocumentTank seen;
    seen.madeWith = tank.text("made_with").value_or("pure");
    t.makeUp = readMakeUp(tank, seen.madeWith);
    seen.vessel = readVessel(tank);
    tank.finish();
    plan.tanks.push_back(std::move(t));
    tanks.push_back(std::move(seen));
  }
  if (plan.tanks.empty() || plan.tanks.size() > mostTanks)
    reader.fail(ProblemCode::OutOfRange, "tanks",
                {std::to_string(plan.tanks.size()), "1 to " + std::to_string(mostTanks) + " tanks"});
  readPlaced(reader, path, plan);
  reader.finish();
  return plan;
}

DosingDocument readDosingDocument(const Json& dosing, const std::string& path, std::size_t tankCount,
                                  std::optional<Problem>& problem) {
  DosingDocument out;
  out.drawn.resize(tankCount);
  out.ofPlan.resize(tankCount, 1);
  ObjectReader reader(dosing, path, problem);
  out.device = static_cast<DosingDevice>(choice(reader, "device", devices));
  out.feedPerDay = volumeIf(reader, "feed_per_day");
  out.feedPerHour = volumeIf(reader, "feed_per_hour");
  out.fillDays = digits(reader, "fill_days", 0.1, 1000, "0.1 to 1000 days").value_or(out.fillDays);
  out.seasonDays = digits(reader, "season_days", 1, 10000, "1 to 10000 days").value_or(out.seasonDays);
  out.mixedOn = reader.text("mixed_on").value_or("");
  readPumps(reader, out);
  readDrawn(reader, out);
  out.setpoint = conductivityIf(reader, "setpoint");
  readReservoir(reader, out.reservoir);
  readReadings(reader, out);
  out.dissolving.coldWater = temperatureOr(reader, "cold_water", out.dissolving.coldWater);
  out.dissolving.hotWater = temperatureOr(reader, "hot_water", out.dissolving.hotWater);
  out.dissolving.wanted = temperatureOr(reader, "wanted", out.dissolving.wanted);
  out.lineFor = volumeIf(reader, "line_for");
  out.besideUid = reader.text("beside").value_or("");
  reader.finish();
  return out;
}

} // namespace butte::exchange
