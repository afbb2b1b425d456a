#pragma once
#include "script_input.h"
#include "verbs.h"
#include "words.h"

/// What the verbs share in printing their answers.
namespace butte::cli {

using exchange::Json;

/// null where there is nothing: what is not known is never 0.
Json optionalNumber(const std::optional<double>& value);
Json warning(std::string_view code, const std::string& text);
/// Every nutrient key with its amount.
Json nutrientObject(const core::NutrientAmounts& amounts);
/// What had to be interpreted in the input.
Json inputWarnings(const exchange::ScriptInput& input);
/// `weights_g`, parallel to the shelf; 0 for those not named.
std::vector<core::Mass> weightsOf(const exchange::ScriptInput& input);

/// Elements, ions, EC, pH and cost of a feed.
void addMix(Json& out, const core::MixResult& feed);
/// How the weights go straight into one vessel of volume_l, where the script has `direct`. Errors: those of
/// mixDirectly().
std::optional<core::Problem> addDirect(Json& out, const core::Given& given, const core::SolveRequest& request,
                                       const std::vector<core::Mass>& grams);
Json weightsObject(const core::SolveRequest& request, const std::vector<core::Mass>& grams);
std::string statusName(core::SolveStatus status);
/// Says where no pH follows, since a product holds an acid that the chemistry does not know.
void addUnknownAcidity(Json& warnings, const core::MixResult& feed);

/// Adds the same, and what of a feed harms plants, whether it has a target or not.
void addFeedWarnings(Json& warnings, const core::MixResult& feed);

Json solveWarnings(const exchange::ScriptInput& input, const core::SolveRequest& request,
                   const core::SolveAnswer& answer);
Json reasonTexts(const core::SolveAnswer& answer);
/// Weights for tanks: solved where a target is given, else as they stand in weights_g. The warnings of both
/// go to `warnings`. Errors: MissingKey with neither; `unsolved` is set instead where the target has no
/// answer.
core::Result<std::vector<core::Mass>> weightsForTanks(const exchange::ScriptInput& input, Json& warnings,
                                                      std::optional<Outcome>& unsolved);
/// No answer exists: why.
Outcome impossible(const exchange::ScriptInput& input, const core::SolveAnswer& answer);

} // namespace butte::cli
