#pragma once
#include "json_reader.h"
#include "script_input.h"

/// The parts of the scripting interface that ask for more than one plain formula.
namespace butte::exchange {

/// `water` of a script: mg/L, pH, EC, temperature.
core::Water readScriptWater(const Json& object, const std::string& path,
                            std::optional<core::Problem>& problem);

/// Reads mode, ratios, choice of products, rounding, errors, crops, and what a batch is made of.
void readScriptModes(ObjectReader& top, ScriptInput& out);

} // namespace butte::exchange
