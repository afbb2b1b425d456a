#pragma once
#include "product/shelf_product.h"
#include "units/quantity.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// A weight whose error is larger than this is too fine for its scale (common practice).
inline constexpr double coarsePercent = 2;

/// A scale on the bench.
struct Scale {
  std::string name;
  Mass readability = Mass::fromGrams(1); ///< the smallest step it shows
  Mass capacity = Mass::fromGrams(5000); ///< the most it takes at once
  std::string unit = "g";                ///< what its display shows: "g", "kg", "oz", "lb"
  bool spoons = false; ///< none at all: a set of level measuring spoons, whose steps differ by product
};

/// The set of level measuring spoons, as one of the scales.
inline Scale levelSpoons() {
  return {"level spoons", {}, Mass::fromGrams(1e9), "tsp", true};
}

/// One salt to weigh.
struct WeighStep {
  std::size_t product = 0;   ///< index into the shelf
  std::size_t scale = 0;     ///< index into the scales
  Mass exact;                ///< as computed
  Mass shown;                ///< in the scale's steps
  Mass step;                 ///< the smallest difference that can be weighed
  int loads = 1;             ///< how many fills of the scale it takes
  double teaspoons = 0;      ///< level ones, where it is measured by spoons; else 0
  bool spoonWeighed = false; ///< what a level spoon of it holds was weighed
  double errorPercent = 0;   ///< half a step of the scale for each load, at worst, against the exact weight
  bool tooFine = false;      ///< the scale can't weigh it to 2 % (common practice)
};

/// Where the salts go: the order differs.
enum class MixingInto {
  Tank,  ///< a concentrate: calcium nitrate leads its own tank
  Vessel ///< thin feed, all in one: calcium goes in last
};

/// When acids and bases go into a vessel. Two schools (common practice): last, when the meter shows what is
/// still missing; or first, so that the carbonate is gone before phosphate and calcium meet it.
enum class AcidTurn { Last, First };

/// The products with a weight, as indices into the shelf, in the order of mixing (common practice).
std::vector<std::size_t> mixingOrder(const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& weights,
                                     MixingInto into, AcidTurn acid = AcidTurn::Last);

/// The weights in the order of mixing, each on the finest scale that takes it in one load (else the largest,
/// in several; or a finer one in up to five loads where one load would be off by more than 2 %; level spoons
/// where no scale is nearer). Rounds half
/// up to the scale's step, or shows the weight of `chosen` (parallel to the shelf) where that is given.
/// Products without weight are left out. Needs at least one scale.
std::vector<WeighStep> weighPlan(const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& weights,
                                 const std::vector<Scale>& scales, const std::vector<Mass>& chosen = {},
                                 MixingInto into = MixingInto::Tank, AcidTurn acid = AcidTurn::Last);

/// Rounds half up to a whole number of steps.
Mass roundedToStep(Mass exact, Mass step);

} // namespace butte::core
