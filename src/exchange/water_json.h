#pragma once
#include "json_reader.h"
#include "water_document.h"

namespace butte::exchange {

/// Reads `water` of a formula (docs/formats/formula.md). Problems go to the sink, with their place.
WaterDocument readWaterDocument(const Json& water, const std::string& path,
                                std::optional<core::Problem>& problem);

/// A shipped acid or base by its catalogue id.
std::optional<core::ShelfProduct> bottleFor(ObjectReader& reader, std::string_view key);

/// A row as it stands in a file: digits as typed.
Json waterRowJson(const std::string& key, const std::string& digits, const std::string& unit, bool below);

} // namespace butte::exchange
