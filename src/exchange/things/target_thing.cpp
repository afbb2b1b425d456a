#include "json_reader.h"
#include "things/choices.h"
#include "things/figures.h"
#include "things/things.h"

namespace butte::exchange {

using namespace core;

namespace {

std::string knownNutrients() {
  std::string known;
  for (const auto n : allNutrients)
    known += (known.empty() ? "" : " ") + std::string(nutrientKey(n));
  return known;
}

} // namespace

std::optional<Nutrient> nutrientAt(ObjectReader& reader, std::string_view key, const std::string& text) {
  const auto nutrient = nutrientFromKey(text);
  if (!nutrient) reader.fail(ProblemCode::UnknownKey, key, {knownNutrients()});
  return nutrient;
}

std::vector<Nutrient> readRatioSide(ObjectReader& reader, std::string_view key) {
  std::vector<Nutrient> out;
  const auto* list = reader.array(key);
  for (std::size_t i = 0; list && i < list->size(); ++i) {
    const auto& one = (*list)[i];
    const auto nutrient = nutrientAt(reader, key, one.is_string() ? one.get<std::string>() : std::string());
    if (nutrient) out.push_back(*nutrient);
  }
  if (out.empty()) reader.fail(ProblemCode::MissingKey, key, {"one element at least"});
  return out;
}

RatioWish readRatioWish(const Json& json, const std::string& path, Dialect dialect,
                        std::optional<Problem>& problem) {
  ObjectReader reader(json, path, problem);
  RatioWish wish;
  wish.above = readRatioSide(reader, "above");
  wish.below = readRatioSide(reader, "below");
  const auto value = figure(reader, dialect, figures::ratioValue);
  if (!value) reader.fail(ProblemCode::MissingKey, "value", {"a ratio needs its figure"});
  wish.value = value.value_or(1);
  wish.basis = chosen(reader, "basis", ratioBases);
  wish.tolerancePercent = figure(reader, dialect, figures::ratioBand).value_or(10);
  wish.weight = figure(reader, dialect, figures::rowWeight).value_or(1);
  reader.finish();
  return wish;
}

} // namespace butte::exchange
