#pragma once
#include "tank/reservoir_chemistry.h"

#include <optional>

namespace butte::core {

/// The conductivity at 25 degC that this content has, mS/cm; nothing where the chemistry finds none.
std::optional<double> conductivityOf(const FeedContent& content, const ReservoirAir& air);

/// The pH it has; nothing where the chemistry finds none.
std::optional<double> phOf(const FeedContent& content, const ReservoirAir& air);

/// The alkalinity at which it would have this pH, meq/L. It runs straight where the pH leaps, so a reading
/// of pH is taken in by it.
std::optional<double> alkalinityAtPh(const FeedContent& content, double ph, const ReservoirAir& air);

} // namespace butte::core
