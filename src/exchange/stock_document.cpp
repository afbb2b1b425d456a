#include "stock_json.h"

#include "base/decimal.h"
#include "dose/ratio.h"
#include "things/choices.h"
#include "things/figures.h"
#include "things/things.h"
#include "typed_numbers.h"

#include <array>
#include <cmath>
#include <numeric>
#include <utility>

namespace butte::exchange {
namespace {

using namespace core;

constexpr Choices<DosingDevice, 5> devices{{{"injector", DosingDevice::Injector},
                                            {"series", DosingDevice::Series},
                                            {"pumps", DosingDevice::Pumps},
                                            {"setpoint", DosingDevice::Setpoint},
                                            {"hand", DosingDevice::Hand}}};

/// The strength in whatever form it was typed.
std::optional<double> readFactor(ObjectReader& reader) {
  Choices<RatioForm, ratioFormCount> forms;
  for (int i = 0; i < ratioFormCount; ++i)
    forms[static_cast<std::size_t>(i)] = {ratioKey(static_cast<RatioForm>(i)), static_cast<RatioForm>(i)};
  const auto form = chosen(reader, "factor_form", forms);
  const auto typed = figure(reader, Dialect::Document, {"", "factor", "", 0, 1e6});
  if (!typed || reader.failed()) return std::nullopt;
  const auto factor = factorFrom(form, *typed);
  if (!factor || *factor > 100000) {
    reader.fail(ProblemCode::OutOfRange, "factor", {decimalText(*typed), "a dilution of 1 to 100000"});
    return std::nullopt;
  }
  return *factor;
}

std::optional<Vessel> vesselOf(ObjectReader& tank) {
  const auto* object = tank.any("vessel");
  if (!object || object->is_null()) return std::nullopt;
  ObjectReader reader(*object, tank.pathOf("vessel"), tank.sink());
  const auto vessel = readVessel(reader, Dialect::Document);
  reader.finish();
  return vessel;
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

void readReservoir(ObjectReader& parent, Reservoir& out) {
  const auto* object = parent.object("reservoir");
  if (!object) return;
  ObjectReader reader(*object, parent.pathOf("reservoir"), parent.sink());
  out.volume = volumeOf(reader, Dialect::Document, figures::vesselVolume).value_or(out.volume);
  out.present = volumeOf(reader, Dialect::Document, figures::vesselPresent).value_or(out.present);
  out.lastWater = volumeOf(reader, Dialect::Document, figures::vesselLastWater).value_or(out.lastWater);
  out.reading = conductivityOf(reader, Dialect::Document, figures::vesselReading);
  out.target = conductivityOf(reader, Dialect::Document, figures::vesselTarget);
  out.cautious = reader.flag("cautious").value_or(out.cautious);
  out.withAcid = reader.flag("with_acid").value_or(out.withAcid);
  out.byReadings = reader.flag("by_readings").value_or(out.byReadings);
  reader.finish();
}

void readPumps(ObjectReader& parent, DosingDocument& out) {
  const auto* list = parent.array("pumps");
  for (std::size_t i = 0; list && i < list->size() && !parent.failed(); ++i) {
    ObjectReader reader((*list)[i], item(parent.pathOf("pumps"), i), parent.sink());
    const auto pump = readPump(reader, Dialect::Document);
    reader.finish();
    out.pumps.push_back(pump);
  }
}

void readDrawn(ObjectReader& parent, DosingDocument& out) {
  const auto* list = parent.array("drawn");
  for (std::size_t i = 0; list && i < list->size() && !parent.failed(); ++i) {
    ObjectReader reader((*list)[i], item(parent.pathOf("drawn"), i), parent.sink());
    const auto volume = volumeOf(reader, Dialect::Document, figures::drawn);
    const auto ofPlan = figure(reader, Dialect::Document, {"", "of_plan_percent", "%", 0, 1000});
    reader.finish();
    if (i >= out.drawn.size()) continue;
    out.drawn[i] = volume;
    if (ofPlan) out.ofPlan[i] = *ofPlan / 100;
  }
  out.drawnFeed = volumeOf(parent, Dialect::Document, figures::drawnFeed);
}

void readReadings(ObjectReader& parent, DosingDocument& out) {
  const auto* list = parent.array("readings");
  for (std::size_t i = 0; list && i < list->size() && !parent.failed(); ++i) {
    ObjectReader reader((*list)[i], item(parent.pathOf("readings"), i), parent.sink());
    const auto reading = readDosedReading(reader, Dialect::Document);
    reader.finish();
    if (reading) out.readings.push_back(*reading);
  }
}

} // namespace

StockPlan readStockDocument(const Json& stock, const std::string& path, std::vector<DocumentTank>& tanks,
                            std::optional<Problem>& problem) {
  StockPlan plan;
  ObjectReader reader(stock, path, problem);
  plan.factor = readFactor(reader).value_or(100);
  plan.temperature =
      temperatureOf(reader, Dialect::Document, figures::coldest).value_or(Temperature::fromCelsius(20));
  plan.marginPercent = figure(reader, Dialect::Document, figures::margin).value_or(plan.marginPercent);
  const auto* list = reader.array("tanks");
  for (std::size_t i = 0; list && i < list->size(); ++i) {
    ObjectReader tank((*list)[i], item(path + ".tanks", i), problem);
    Tank t;
    t.name = tank.text("name").value_or("");
    readTank(tank, Dialect::Document, t);
    DocumentTank seen;
    seen.madeWith = tank.text("made_with").value_or("pure");
    t.makeUp = readMakeUp(tank, seen.madeWith);
    seen.vessel = vesselOf(tank);
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
  out.device = chosen(reader, "device", devices);
  out.feedPerDay = volumeOf(reader, Dialect::Document, figures::feedPerDay);
  out.feedPerHour = volumeOf(reader, Dialect::Document, figures::feedPerHour);
  out.fillDays = figure(reader, Dialect::Document, figures::fillDays).value_or(out.fillDays);
  out.seasonDays = figure(reader, Dialect::Document, figures::seasonDays).value_or(out.seasonDays);
  out.mixedOn = reader.text("mixed_on").value_or("");
  readPumps(reader, out);
  readDrawn(reader, out);
  out.setpoint = conductivityOf(reader, Dialect::Document, figures::setpoint);
  readReservoir(reader, out.reservoir);
  readReadings(reader, out);
  readDissolving(reader, Dialect::Document, out.dissolving);
  out.lineFor = volumeOf(reader, Dialect::Document, figures::lineFor);
  out.besideUid = reader.text("beside").value_or("");
  reader.finish();
  return out;
}

} // namespace butte::exchange
