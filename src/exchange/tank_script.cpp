#include "tank_script.h"

#include "things/choices.h"
#include "things/figures.h"
#include "things/things.h"

#include <array>

namespace butte::exchange {

using namespace core;

namespace {

constexpr std::array<std::string_view, 4> sharedKeys{"water", "products", "weights_g", "volume_l"};

constexpr Choices<UptakeClimate, 2> climates{{{"cool", UptakeClimate::Cool}, {"warm", UptakeClimate::Warm}}};

std::string knownCrops() {
  std::string out;
  for (const auto& crop : cropsWithUptake())
    out += (out.empty() ? "" : ", ") + crop;
  return out;
}

/// Single figures in place of the crop's.
void lay(NutrientAmounts& over, const NutrientObject& single) {
  for (const auto n : single.named)
    over.add(n, single.amounts.of(n) - over.of(n));
}

} // namespace

Json sharedKeysOf(const Json& whole) {
  Json out = Json::object();
  for (const auto key : sharedKeys)
    if (const auto found = whole.find(key); found != whole.end()) out[std::string(key)] = *found;
  return out;
}

std::optional<NutrientObject> nutrientObjectAt(ObjectReader& reader, std::string_view key, double most,
                                               std::string_view unit) {
  const auto* object = reader.object(key);
  if (!object) return std::nullopt;
  NutrientObject out;
  ObjectReader rows(*object, reader.pathOf(key), reader.sink());
  for (const auto& [name, value] : object->items()) {
    if (name.starts_with("x_")) continue;
    const auto nutrient = nutrientAt(rows, name, name);
    if (nutrient == Nutrient::N)
      rows.fail(ProblemCode::NotOneOf, name, {name, "N_NO3, N_NH4, N_urea: by its form"});
    const auto amount = figure(rows, Dialect::Script, {name, name, unit, 0, most});
    if (reader.failed()) return std::nullopt;
    out.amounts.add(*nutrient, *amount);
    out.named.push_back(*nutrient);
  }
  return out;
}

Uptake readUptake(ObjectReader& reader) {
  Uptake out;
  const auto climate = chosen(reader, "climate", climates);
  if (const auto crop = reader.text("crop")) {
    const auto* known = uptakeOf(*crop, climate);
    if (!known) reader.fail(ProblemCode::NotOneOf, "crop", {*crop, knownCrops()});
    if (known) out = known->uptake();
  }
  constexpr double mostMillimoles = 1000, mostShare = 10;
  if (const auto fixed = nutrientObjectAt(reader, "uptake_mmol_per_l", mostMillimoles, "mmol/L"))
    lay(out.millimolesPerLitre, *fixed);
  if (const auto share = nutrientObjectAt(reader, "uptake_of_concentration", mostShare, ""))
    lay(out.shareOfConcentration, *share);
  return out;
}

} // namespace butte::exchange
