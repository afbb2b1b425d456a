#pragma once
#include "chem/nutrient.h"
#include "product/shelf_product.h"
#include "units/quantity.h"

#include <array>
#include <optional>
#include <vector>

namespace butte::core {

/// What one source brings to an element of the feed.
struct Contribution {
  std::optional<std::size_t> product; ///< index into the shelf; nothing: the water
  double milligramsPerLitre = 0;
};

/// Per element: the water first, then every product that brings any, in the shelf's order.
using Contributions = std::array<std::vector<Contribution>, nutrientCount>;

Contributions contributionsTo(const NutrientAmounts& water, const std::vector<ShelfProduct>& shelf,
                              const std::vector<Mass>& grams, Volume volume);

} // namespace butte::core
