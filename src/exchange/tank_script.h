#pragma once
#include "json_fwd.h"
#include "script_input.h"
#include "tank/crop_uptake.h"

#include <optional>
#include <string>

/// What the scripts of a tank share in reading.
namespace butte::exchange {

class ObjectReader;

/// The shared part of the scripting interface (water, products, weights ...) from JSON that is parsed.
core::Result<ScriptInput> scriptInputFrom(const Json& json);

/// {"Ca": 120, ...} of elements with `unit` limits; N has to be named by its form.
struct NutrientObject {
  core::NutrientAmounts amounts;
  std::vector<core::Nutrient> named;
};
std::optional<NutrientObject> nutrientObjectAt(ObjectReader& reader, std::string_view key, double most,
                                               std::string_view unit);

/// `uptake_mmol_per_l` and `uptake_of_concentration`, or `crop` with `climate`, or both: single figures over
/// the crop's own.
core::Uptake readUptake(ObjectReader& reader);

/// The shared keys alone, so that the strict reader can take them.
Json sharedKeysOf(const Json& whole);

} // namespace butte::exchange
