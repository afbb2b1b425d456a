#pragma once
#include "json_fwd.h"

#include <cstddef>
#include <string>
#include <vector>

/// The stages of one crop in a formula document (docs/formats/formula.md): each with its own target, weights
/// and aim; water, shelf, tanks and scales are one and the same. One stage is in hand: what it has stands in
/// the document's own places, the others' in the list `stages`.
namespace butte::exchange {

inline constexpr std::size_t mostStages = 8;

/// In order, the one in hand among them; none where the formula has no stages.
std::vector<std::string> stageNames(const Json& document);
/// Which of them is in hand.
std::size_t stageInHand(const Json& document);

/// The document with another of its stages in hand.
Json withStageInHand(const Json& document, std::size_t stage);
/// With one more at the end, a copy of the one in hand, which it then is; a formula without stages calls what
/// it had `first`.
Json withNewStage(const Json& document, const std::string& first, const std::string& name);
/// Without one that is not in hand; the last but one ends the stages.
Json withoutStage(const Json& document, std::size_t stage);
Json withStageRenamed(const Json& document, std::size_t stage, const std::string& name);

} // namespace butte::exchange
