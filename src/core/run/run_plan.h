#pragma once
#include "bench/weigh_plan.h"
#include "product/shelf_product.h"
#include "units/quantity.h"
#include "water/water.h"

#include <string>
#include <vector>

namespace butte::core {

/// One product into one vessel, as planned.
struct RunStep {
  std::size_t product = 0; ///< index into the plan's shelf
  Mass planned;
  Mass tolerance;      ///< either way; see toleranceOf()
  Mass mostAtOnce{};   ///< what its scale takes; nothing: all of it
  std::string scale{}; ///< that it is weighed on, by its name
  Mass readability{};  ///< the smallest step of that scale; nothing: not known
};

/// Feed that stands in a vessel before anything is done.
struct AlreadyIn {
  Volume volume;           ///< nothing: it is empty
  std::vector<Mass> grams; ///< what it holds of the plan's shelf, parallel to it; empty where it is
  Mass of(std::size_t product) const { return product < grams.size() ? grams[product] : Mass{}; }
};

/// A vessel that is filled in a run, its products in the order of mixing.
struct RunVessel {
  std::string name;
  Volume volume;     ///< full to its mark
  double factor = 1; ///< stock factor: a litre of it makes this many litres of feed; 1: it is the feed
  std::vector<RunStep> steps;
  bool isBag = false; ///< weighed for later: no water, nothing to dissolve; `volume` is the feed it makes
  AlreadyIn had = {}; ///< steps count it: what is planned is what is in the vessel in the end
};

/// The water that a vessel begins with: half a tank; most of a vessel of feed, what is in it counted (common
/// practice); a bag takes none.
Volume waterFirst(const RunVessel& vessel);

/// What a run sets out to do; never changed while it goes on. Events say what became of it.
struct RunPlan {
  std::vector<ShelfProduct> shelf;
  Water water;
  std::vector<RunVessel> vessels;
};

/// The products of `weights` (parallel to the shelf) into a vessel, in the order of mixing.
RunVessel runVessel(const std::string& name, Volume volume, double factor,
                    const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& weights);

/// Grams of each product in a litre of feed, of vessels that are filled as planned. Parallel to the shelf.
std::vector<Mass> gramsPerLitreOfFeed(const RunPlan& plan);

/// An element that a product brings may be off by this much of the whole before it is worth a second look
/// (common practice: what a dealer's label promises is no closer).
inline constexpr double worthASecondLookPercent = 1;

/// The error of a step's weight at which some element of the feed is off by worthASecondLookPercent, but no
/// more than 2 % of the weight itself (common practice), and no less than half a step of the scale.
Mass toleranceOf(const RunPlan& plan, const RunVessel& vessel, const RunStep& step, Mass readability);

/// Sets all tolerances of a plan, for one scale.
void setTolerances(RunPlan& plan, Mass readability);

/// Gives each step the scale that its vessel's weights go on best (weighPlan()), with the tolerance that this
/// one can hold and what it takes at once. Spoons resolve what half of their finest measure holds.
void fitScales(RunPlan& plan, const std::vector<Scale>& scales);

} // namespace butte::core
