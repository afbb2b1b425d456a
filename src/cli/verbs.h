#pragma once
#include "balance_script.h"
#include "base/result.h"
#include "json_reader.h"
#include "script_input.h"
#include "water_script.h"

namespace butte::cli {

/// What a verb prints and how the program ends: 0 an answer, 3 well-formed but without one.
struct Outcome {
  exchange::Json json;
  int exitCode = 0;
};

core::Result<Outcome> composition(const std::string& formula);
core::Result<Outcome> convert(const std::string& value, const std::string& from, const std::string& to,
                              const std::string& substance);
/// "2½ gal" in the unit asked for.
core::Result<Outcome> convertTyped(const std::string& text, const std::string& to,
                                   const std::string& substance);
/// A fertilizer's label as text.
core::Result<Outcome> label(const std::string& text);
/// Lines of a scale, each as it was understood; by a pattern of one's own where that is not empty.
core::Result<Outcome> scaleLines(const std::string& text, const std::string& pattern);
core::Result<Outcome> weigh(const exchange::ScriptInput& input);
/// Where a run at the bench stands after its events, and what it made.
core::Result<Outcome> run(const exchange::ScriptInput& input);
core::Result<Outcome> mix(const exchange::ScriptInput& input);
core::Result<Outcome> solve(const exchange::ScriptInput& input);
core::Result<Outcome> stock(const exchange::ScriptInput& input);
core::Result<Outcome> dose(const exchange::ScriptInput& input);
core::Result<Outcome> equilibrium(const exchange::ScriptInput& input);
core::Result<Outcome> acid(const exchange::ScriptInput& input);
core::Result<Outcome> water(const exchange::WaterScript& script);
/// A tank day by day.
core::Result<Outcome> balance(const exchange::BalanceScript& script);
/// A feed adjusted to what stands in the root zone.
core::Result<Outcome> steer(const exchange::SteerScript& script);

} // namespace butte::cli
