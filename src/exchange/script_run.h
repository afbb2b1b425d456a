#pragma once
#include "base/result.h"
#include "json_fwd.h"
#include "run/run_event.h"
#include "run/run_plan.h"

#include <string>

/// A run at the bench as a file: its vessels and its events (docs/formats/script.md).
namespace butte::exchange {

class ObjectReader;
struct ScriptInput;

/// `run` of a script: `vessels` (else one of volume_l with weights_g), and `events`. Needs the products.
void readScriptRun(ObjectReader& top, ScriptInput& out);

/// An event as a file has it; products by id, vessels by name.
Json toJson(const core::RunEvent& event, const core::RunPlan& plan);
/// The same the other way; problems name the key below `path`.
core::Result<core::RunEvent> runEventFromJson(const Json& json, const std::string& path,
                                              const core::RunPlan& plan);

} // namespace butte::exchange
