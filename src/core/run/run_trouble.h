#pragma once
#include "run/run_state.h"
#include "stock/stock.h"

#include <optional>
#include <utility>
#include <vector>

namespace butte::core {

/// Something that is in a vessel and was not planned for it, or more of it than was, while another lacks it.
struct Misplaced {
  std::size_t vessel = 0, product = 0;
  Mass mass;
  /// The vessel that it was planned for, and still lacks it: what is here must not be weighed there again.
  std::optional<std::size_t> lackedBy;
};
std::vector<Misplaced> misplacedIn(const RunPlan& plan, const RunState& state);

/// What a vessel as it is comes to, once it is made up.
struct VesselOutcome {
  std::vector<Fallen> fallen;        ///< at 20 degC, the most first
  std::vector<TankMeeting> meetings; ///< the products that do it
  std::vector<StockNotice> notices;  ///< such as acid on a weak salt
  std::vector<std::pair<Nutrient, double>>
      shiftsPercent; ///< of the feed against the plan, the farthest first
  bool known = true; ///< false: its chemistry is not known
};

/// What falls out of a vessel as it is now (by the chemistry of a tank, planStock()), and how the feed would
/// differ by that and by what is in it too much or in vain. `others` are taken as planned.
VesselOutcome outcomeOf(const RunPlan& plan, const RunState& state, std::size_t vessel);

/// The ratio at which the bag in hand suffices: what is there of the product over what was planned of it in
/// all. Nothing where there is nothing of it, or enough.
std::optional<double> ratioThatSuffices(const RunPlan& plan, const RunState& state, std::size_t vessel,
                                        std::size_t step);

} // namespace butte::core
