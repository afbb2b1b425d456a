#pragma once
#include "base/result.h"
#include "water/water.h"

#include <optional>
#include <vector>

namespace butte::core {

/// One of the waters that are blended; shares count against their sum.
struct BlendPart {
  Water water;
  double share = 1;
};

/// The waters together, closed to the air. Ions and alkalinity add up; the pH follows from the carbonate of
/// all, where every part with alkalinity has a pH. What one part did not measure is not measured in the
/// blend. Needs a share above 0.
Water blended(const std::vector<BlendPart>& parts);

/// What a blend shall not exceed (or, being as much of a part as possible, shall just reach).
enum class BlendGoal { Alkalinity, Conductivity, Sodium, Chloride, Calcium };
struct BlendLimit {
  BlendGoal goal = BlendGoal::Alkalinity;
  double atMost = 0; ///< meq/L, mS/cm at 25 degC, mg/L
};

/// What a water has of it; nothing where it is not known.
std::optional<double> amountOf(BlendGoal goal, const Water& water);

/// The share of part `index` (0 to 1) at which the blend holds as much as it may: the largest of a water that
/// stands above the limit, the smallest of one that thins the others; 1 where nothing is above. The others
/// keep their proportions, or count evenly where none has a share. Errors: NotDeterminable (a part's figure
/// is not known, or there is no other part), CannotReach (values: limit; the others alone are beyond it).
Result<double> largestShare(const std::vector<BlendPart>& parts, std::size_t index, const BlendLimit& limit);

/// The worst of several reports of one source: the highest of each ion, alkalinity, EC and pH.
Water worstOf(const std::vector<Water>& reports);

} // namespace butte::core
