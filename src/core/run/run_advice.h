#pragma once
#include "chem/nutrient.h"
#include "run/run_state.h"

#include <optional>
#include <utility>
#include <vector>

namespace butte::core {

/// The whole run made larger, so that what is in already fits.
struct RescaleOffer {
  double ratio = 1; ///< of the first plan
  /// What then is still to be weighed, by vessel and step; and to what each vessel is made up.
  std::vector<std::vector<Mass>> more;
  std::vector<Volume> volumes;
};

/// The least ratio at which nothing that is in a vessel, or in the cup for the step that is next, is too
/// much.
RescaleOffer offerRescale(const RunPlan& plan, const RunState& state);

/// Too much of a product, and what can be done.
struct Overshoot {
  Mass over;    ///< beyond what is wanted
  Mass takeOut; ///< of it, what still lies dry in the cup
  /// Accepted as it is: the elements of the feed that move by half a percent or more, the most first.
  std::vector<std::pair<Nutrient, double>> shiftsPercent;
  Conductivity planned, accepted; ///< of the feed
  RescaleOffer rescale;
};

/// Nothing where the step is not over by more than its tolerance.
std::optional<Overshoot> overshootOf(const RunPlan& plan, const RunState& state, std::size_t vessel,
                                     std::size_t step);

/// What meters should show of a vessel as it is now, once it is made up.
struct ExpectedReading {
  Conductivity conductivity; ///< at 25 degC; of a stock beyond what most meters show
  std::optional<double> ph;  ///< nothing where it is not known
};
ExpectedReading expectedReading(const RunPlan& plan, const RunState& state, std::size_t vessel);

} // namespace butte::core
