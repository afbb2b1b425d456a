#pragma once
#include "formula/mix.h"

#include <vector>

namespace butte::core {

/// The factor on all weights, their proportions kept, that brings a feed to an EC at 25 degC: what a grower
/// does who keeps a recipe's weights and makes it weaker for summer. Errors: OutOfRange where the water alone
/// reads as much, where there is nothing to weigh, or where more than a thousandfold would be needed (values:
/// the EC asked for and the range that can be reached, both in mS/cm).
Result<double> factorOnWeights(const Water& water, const std::vector<ShelfProduct>& shelf,
                               const std::vector<Mass>& grams, Volume volume, Conductivity wanted);

} // namespace butte::core
