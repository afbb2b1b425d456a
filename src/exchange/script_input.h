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

/// What the chemistry verbs read beside the mixture.
struct ScriptChemistry {
  std::optional<core::ShelfProduct> acid;
  std::optional<double> targetPh;
  std::optional<double> heldPh;
  std::optional<double> temperatureCelsius;
  bool openToAir = false;
  double carbonDioxideAtm = core::airCarbonDioxideAtm;
};

/// What one JSON object of the scripting interface says (docs/formats/script.md).
struct ScriptInput {
  core::Given given;
  bool hasTarget = false;
  ScriptChemistry chemistry;
  std::optional<std::map<std::string, core::Mass>> weights;
  std::vector<std::pair<core::LabelRemark, std::string>> labelRemarks; ///< with the product id
  std::vector<std::string> weightsIgnored;                             ///< in a solve: given but not locked
};

/// Reads and checks the whole object; every problem names its key.
core::Result<ScriptInput> readScriptInput(std::string_view text);

} // namespace butte::exchange
