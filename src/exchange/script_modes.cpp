#include "script_modes.h"

#include "base/decimal.h"
#include "things/choices.h"
#include "things/things.h"
#include "typed_numbers.h"

#include <cmath>

namespace butte::exchange {

using namespace core;

namespace {

std::optional<double> positiveOrZero(ObjectReader& reader, std::string_view key) {
  const auto value = reader.number(key);
  if (value && !(*value >= 0))
    reader.fail(ProblemCode::OutsideLimits, key, {decimalText(*value), "0", "", ""});
  return value;
}

PerProduct readPerProduct(ObjectReader& parent, std::string_view key, const SolveRequest& request) {
  PerProduct out;
  const auto* object = parent.object(key);
  if (!object) return out;
  ObjectReader reader(*object, parent.pathOf(key), parent.sink());
  for (const auto& [id, value] : object->items()) {
    const auto figure = positiveOrZero(reader, id);
    if (id == "default") {
      out.otherwise = figure;
      continue;
    }
    bool known = false;
    for (const auto& p : request.shelf)
      known = known || p.id == id;
    if (!known && !id.starts_with("x_")) reader.fail(ProblemCode::UnknownProduct, id, {id});
    if (figure) out.of[id] = *figure;
  }
  return out;
}

ScriptErrors readErrors(const Json& json, const SolveRequest& request, std::optional<Problem>& problem) {
  ObjectReader reader(json, "errors", problem);
  ScriptErrors out;
  out.contentPercent = readPerProduct(reader, "content_percent", request);
  out.moisturePercent = readPerProduct(reader, "moisture_percent", request);
  out.weighingGrams = readPerProduct(reader, "weighing_g", request);
  const auto hand = readHandErrors(reader, Dialect::Script);
  out.volumePercent = hand.volumePercent;
  out.dosingPercent = hand.dosingPercent;
  out.waterPercent = hand.waterPercent;
  reader.finish();
  return out;
}

/// {present_l, ec_now, acid}
DirectPlan readDirect(const Json& json, std::optional<Problem>& problem) {
  ObjectReader reader(json, "direct", problem);
  auto plan = readDirectPlan(reader, Dialect::Script);
  reader.finish();
  return plan;
}

/// {name, target_mg_per_l, tolerance_percent (a number), weight}
CropWish readCrop(const Json& json, const std::string& path, std::optional<Problem>& problem) {
  ObjectReader reader(json, path, problem);
  CropWish crop;
  crop.name = reader.text("name").value_or(path);
  const double tolerance = positiveOrZero(reader, "tolerance_percent").value_or(5);
  crop.weight = positiveOrZero(reader, "weight").value_or(1);
  const auto* target = reader.object("target_mg_per_l");
  if (!target || target->empty())
    reader.fail(ProblemCode::MissingKey, "target_mg_per_l", {"a target per element in mg/L"});
  if (target) {
    ObjectReader rows(*target, path + ".target_mg_per_l", problem);
    for (const auto& [key, value] : target->items()) {
      if (key.starts_with("x_")) continue;
      const auto nutrient = nutrientAt(rows, key, key);
      const auto figure = positiveOrZero(rows, key);
      if (nutrient && figure) crop.rows.push_back({*nutrient, *figure, tolerance, 1});
    }
  }
  reader.finish();
  return crop;
}

std::vector<CropWish> readCrops(ObjectReader& top, std::string_view key) {
  std::vector<CropWish> out;
  const auto* list = top.array(key);
  for (std::size_t i = 0; list && i < list->size() && !top.failed(); ++i)
    out.push_back(readCrop((*list)[i], item(std::string(key), i), top.sink()));
  return out;
}

void readChoice(ObjectReader& top, ScriptModes& out) {
  static constexpr Choices<bool, 2> sources{{{"shelf", false}, {"catalogue", true}}};
  out.fromCatalogue = chosen(top, "products_from", sources);
  if (const auto count = top.number("at_most_products")) {
    if (!(*count >= 1 && *count <= 1000 && *count == std::floor(*count)))
      top.fail(ProblemCode::OutOfRange, "at_most_products", {decimalText(*count), "a whole number from 1"});
    out.atMostProducts = static_cast<int>(std::clamp(*count, 1.0, 1000.0));
  }
  out.fewestProducts = top.flag("fewest_products").value_or(false);
}

} // namespace

std::optional<double> PerProduct::forId(const std::string& id) const {
  const auto it = of.find(id);
  return it == of.end() ? otherwise : std::optional(it->second);
}

Water readScriptWater(const Json& object, const std::string& path, std::optional<Problem>& problem) {
  ObjectReader reader(object, path, problem);
  WaterReport report;
  reader.text("name");
  report.ph = reader.number("ph");
  report.temperatureCelsius = reader.number("temperature_c");
  report.conductivityMsPerCm = reader.number("ec_ms_per_cm");
  if (const auto* analysis = reader.object("analysis_mg_per_l")) {
    ObjectReader rows(*analysis, path + ".analysis_mg_per_l", problem);
    for (const auto& [key, value] : analysis->items()) {
      if (key.starts_with("x_")) continue;
      report.milligramsPerLitre.emplace_back(key, rows.number(key).value_or(0));
    }
  }
  reader.finish();
  if (problem) return pureWater();
  auto water = normaliseWater(report);
  if (water) return std::move(water).value();
  problem = water.problem();
  return pureWater();
}

void readScriptModes(ObjectReader& top, ScriptInput& out) {
  auto& modes = out.modes;
  static constexpr Choices<bool, 2> kinds{{{"solve", false}, {"audit", true}}};
  modes.audit = chosen(top, "mode", kinds);
  const auto* ratios = top.array("ratios");
  for (std::size_t i = 0; ratios && i < ratios->size() && !top.failed(); ++i)
    out.given.request.ratios.push_back(
        readRatioWish((*ratios)[i], item("ratios", i), Dialect::Script, top.sink()));
  readChoice(top, modes);
  modes.mends = top.flag("mends").value_or(false);
  if (top.has("round_to_g")) modes.roundToGrams = readPerProduct(top, "round_to_g", out.given.request);
  if (const auto* errors = top.object("errors"))
    modes.errors = readErrors(*errors, out.given.request, top.sink());
  modes.crops = readCrops(top, "crops");
  if (const auto* direct = top.object("direct")) out.given.direct = readDirect(*direct, top.sink());
  if (top.has("scale"))
    out.scale = readScale(*top.object("scale"), "scale", Dialect::Script, {"scale"}, top.sink());
  modes.corrections = top.flag("corrections").value_or(true);
  modes.batchTargets = readCrops(top, "targets");
  const auto* waters = top.array("waters");
  for (std::size_t i = 0; waters && i < waters->size() && !top.failed(); ++i) {
    const auto path = item("waters", i);
    const auto& json = (*waters)[i];
    const bool named = json.is_object() && json.contains("name") && json["name"].is_string();
    modes.batchWaters.push_back(
        {named ? json["name"].get<std::string>() : path, readScriptWater(json, path, top.sink())});
  }
}

} // namespace butte::exchange
