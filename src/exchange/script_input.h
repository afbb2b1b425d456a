#pragma once
#include "base/result.h"
#include "formula/formula_answer.h"

#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace butte::exchange {

/// What one JSON object of the scripting interface says (docs/formats/script.md).
struct ScriptInput {
  core::Given given;
  bool hasTarget = false;
  std::optional<std::map<std::string, core::Mass>> weights;
  std::vector<std::pair<core::LabelRemark, std::string>> labelRemarks; ///< with the product id
  std::vector<std::string> weightsIgnored;                             ///< in a solve: given but not locked
};

/// Reads and checks the whole object; every problem names its key.
core::Result<ScriptInput> readScriptInput(std::string_view text);

} // namespace butte::exchange
