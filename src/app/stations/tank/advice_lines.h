#pragma once
#include "book/tank_line.h"
#include "document/tank_story.h"

#include <vector>

namespace butte::app {

/// What a choice leaves in the log once it is done; the lines' vessel and formula are for whoever keeps them.
std::vector<book::TankLine> linesOf(const core::Advice& advice, const TankStory& story,
                                    const book::VesselFacts& facts);

/// Fills that nobody wrote down, as levels that leapt up show them: each up to what was read then, with the
/// vessel's feed, a moment before.
std::vector<book::TankLine> fillsShown(const TankStory& story, const book::VesselFacts& facts);

} // namespace butte::app
