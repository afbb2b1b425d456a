#pragma once
#include "base/result.h"
#include "formula/formula_answer.h"
#include "formula/uncertainty.h"
#include "solve/many_crops.h"

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

/// A figure for every product, with a default.
struct PerProduct {
  std::optional<double> otherwise;
  std::map<std::string, double> of;
  std::optional<double> forId(const std::string& id) const;
};

/// How far things may be off, where a script says so; the usual figures else.
struct ScriptErrors {
  PerProduct contentPercent, moisturePercent, weighingGrams;
  std::optional<double> volumePercent, dosingPercent, waterPercent;
};

/// A water or a target of a batch, by its name.
struct NamedWater {
  std::string name;
  core::Water water;
};

/// What `solve` is asked beside the plain formula.
struct ScriptModes {
  bool audit = false; ///< what do these weights give, and which line is wrong
  bool fromCatalogue = false;
  std::optional<int> atMostProducts;
  bool fewestProducts = false;
  bool mends = false;
  std::optional<PerProduct> roundToGrams;
  std::optional<ScriptErrors> errors;
  std::vector<core::CropWish> crops; ///< one set of stocks for all of them
  bool corrections = true;
  std::vector<core::CropWish> batchTargets; ///< with --out
  std::vector<NamedWater> batchWaters;
};

/// What one JSON object of the scripting interface says (docs/formats/script.md).
struct ScriptInput {
  core::Given given;
  bool hasTarget = false;
  ScriptChemistry chemistry;
  ScriptModes modes;
  std::optional<std::map<std::string, core::Mass>> weights;
  std::vector<std::pair<core::LabelRemark, std::string>> labelRemarks; ///< with the product id
  std::vector<std::string> weightsIgnored;                             ///< in a solve: given but not locked
};

/// Reads and checks the whole object; every problem names its key.
core::Result<ScriptInput> readScriptInput(std::string_view text);

} // namespace butte::exchange
