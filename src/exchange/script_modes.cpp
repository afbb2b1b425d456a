#include "script_modes.h"

#include "base/decimal.h"
#include "typed_numbers.h"

#include <cmath>

namespace butte::exchange {

using namespace core;

namespace {

std::optional<double> positiveOrZero(ObjectReader& reader, std::string_view key) {
  const auto value = reader.number(key);
  if (value && !(*value >= 0)) reader.fail(ProblemCode::OutOfRange, key, {decimalText(*value), "0 or more"});
  return value;
}

std::optional<double> percent(ObjectReader& reader, std::string_view key) {
  const auto value = reader.number(key);
  if (value && !(*value >= 0 && *value <= 100))
    reader.fail(ProblemCode::OutOfRange, key, {decimalText(*value), "0 to 100 %"});
  return value;
}

std::vector<Nutrient> side(ObjectReader& reader, std::string_view key) {
  std::vector<Nutrient> out;
  const auto* list = reader.array(key);
  for (std::size_t i = 0; list && i < list->size(); ++i) {
    const auto nutrient =
        (*list)[i].is_string() ? nutrientFromKey((*list)[i].get<std::string>()) : std::nullopt;
    if (!nutrient) reader.fail(ProblemCode::UnknownKey, key, {knownNutrients()});
    if (nutrient) out.push_back(*nutrient);
  }
  if (out.empty()) reader.fail(ProblemCode::MissingKey, key, {"one element at least"});
  return out;
}

RatioWish readScriptRatio(const Json& json, const std::string& path, std::optional<Problem>& problem) {
  ObjectReader reader(json, path, problem);
  RatioWish wish;
  wish.above = side(reader, "above");
  wish.below = side(reader, "below");
  wish.value = positiveOrZero(reader, "value").value_or(0);
  if (!(wish.value > 0)) reader.fail(ProblemCode::OutOfRange, "value", {decimalText(wish.value), "above 0"});
  const auto basis = reader.text("basis").value_or("mass");
  if (basis == "moles")
    wish.basis = RatioBasis::Moles;
  else if (basis == "equivalents")
    wish.basis = RatioBasis::Equivalents;
  else if (basis != "mass")
    reader.fail(ProblemCode::OutOfRange, "basis",
                {"'" + basis + "'", "\"mass\", \"moles\" or \"equivalents\""});
  wish.tolerancePercent = percent(reader, "tolerance_percent").value_or(10);
  wish.weight = positiveOrZero(reader, "weight").value_or(1);
  reader.finish();
  return wish;
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
  out.volumePercent = percent(reader, "volume_percent");
  out.dosingPercent = percent(reader, "dosing_percent");
  out.waterPercent = percent(reader, "water_percent");
  reader.finish();
  return out;
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
      const auto nutrient = nutrientFromKey(key);
      if (!nutrient) rows.fail(ProblemCode::UnknownKey, key, {knownNutrients()});
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
  const auto from = top.text("products_from").value_or("shelf");
  out.fromCatalogue = from == "catalogue";
  if (!out.fromCatalogue && from != "shelf")
    top.fail(ProblemCode::OutOfRange, "products_from", {"'" + from + "'", "\"shelf\" or \"catalogue\""});
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

std::string knownNutrients() {
  std::string known;
  for (const auto n : allNutrients)
    known += (known.empty() ? "" : " ") + std::string(nutrientKey(n));
  return known;
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
  const auto mode = top.text("mode").value_or("solve");
  modes.audit = mode == "audit";
  if (!modes.audit && mode != "solve")
    top.fail(ProblemCode::OutOfRange, "mode", {"'" + mode + "'", "\"solve\" or \"audit\""});
  const auto* ratios = top.array("ratios");
  for (std::size_t i = 0; ratios && i < ratios->size() && !top.failed(); ++i)
    out.given.request.ratios.push_back(readScriptRatio((*ratios)[i], item("ratios", i), top.sink()));
  readChoice(top, modes);
  modes.mends = top.flag("mends").value_or(false);
  if (top.has("round_to_g")) modes.roundToGrams = readPerProduct(top, "round_to_g", out.given.request);
  if (const auto* errors = top.object("errors"))
    modes.errors = readErrors(*errors, out.given.request, top.sink());
  modes.crops = readCrops(top, "crops");
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
