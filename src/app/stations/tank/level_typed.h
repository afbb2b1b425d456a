#pragma once
#include "book/vessel_facts.h"

#include <QString>
#include <optional>

namespace butte::app {

/// How much stands in a vessel, as hands read it where it is no volume: "50 cm" by its measures, "full" and
/// "low" by its marks, "3/4 full" or "75 %" of the full mark, "7 stick" by its float stick. Nothing where it
/// is none of these, or the vessel lacks what it needs for it.
std::optional<core::Volume> levelTyped(const QString& text, const book::VesselFacts& facts);

/// Says what can be typed.
QString levelHint();

} // namespace butte::app
