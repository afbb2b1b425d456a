#pragma once
#include "solve/solve.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// A crop that is to live from the shared stocks.
struct CropWish {
  std::string name;
  std::vector<TargetRow> rows;
  double weight = 1;
};

struct ManyCropsRequest {
  Water water;
  std::vector<ShelfProduct> shelf; ///< acids, bases and held weights play no part
  std::vector<CropWish> crops;
  bool corrections = true; ///< at most one salt of its own per crop, added to its feed
};

struct CropShare {
  double strength = 0; ///< 0 to 1: dilution against the crop that takes the stocks strongest
  std::optional<std::size_t> correction; ///< index into the shelf
  double correctionGramsPerLitre = 0;
  NutrientAmounts milligramsPerLitre;   ///< of its feed
  std::vector<double> deviationPercent; ///< parallel to its rows
  double misfit = 0, ownMisfit = 0;     ///< sum of weighted squares: shared, and with a recipe of its own
};

struct ManyCropsAnswer {
  std::vector<double> gramsPerLitre; ///< of each product, in the feed of the strongest crop
  std::vector<CropShare> crops;
};

/// One set of stocks for several crops: common weights, one dilution a crop, and at most one extra salt each,
/// so that the sum of all crops' weighted squared misses is as small as it gets. The problem has several
/// valleys: it is descended by turns from a fixed set of starts, and the best end is taken. Deterministic.
/// Errors: MissingKey without a crop or a crop without a target.
Result<ManyCropsAnswer> manyCrops(const ManyCropsRequest& request);

} // namespace butte::core
