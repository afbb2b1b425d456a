#pragma once
#include "base/result.h"
#include "bench/weigh_plan.h"
#include "formula/mix.h"

#include <optional>
#include <vector>

namespace butte::core {

/// The salts go straight into one vessel of finished feed: no stocks. The vessel's mark is the volume that
/// the formula's weights stand for.
struct DirectPlan {
  Volume present;                      ///< of the same feed, in the vessel already; 0: it is empty
  std::optional<Conductivity> reading; ///< what that reads; nothing: it is at full strength
  AcidTurn acid = AcidTurn::Last;
};

/// One salt that goes in, and what the meters should show once it is stirred in.
struct DirectStep {
  std::size_t product = 0; ///< index into the shelf
  Mass mass;
  Conductivity after;
};

/// What is done with the vessel, in order.
struct DirectMix {
  Volume vessel;              ///< to the mark
  Volume present;             ///< before anything is done
  double presentStrength = 0; ///< of what is in it, over the formula's
  Volume drain;               ///< out first, where what is in it is too much or too strong
  Volume pour;                ///< water before the salts; the vessel then stands at `mixingVolume`
  Volume mixingVolume;
  Conductivity beforeSalts; ///< what the meter then shows
  Volume toMark;            ///< water after them, so that the last of it makes up the volume
  std::vector<DirectStep> steps;
  std::vector<Mass> grams; ///< parallel to the shelf: to weigh; what is then in the vessel is the feed
};

/// The share of the vessel that is water before the salts go in: room to stir and to rinse cups into (common
/// practice: volume is made up last).
inline constexpr double waterBeforeSalts = 0.9;

/// `grams` stand for `vessel` of finished feed; `waterAlone` is mix() of the water by itself. Salts in the
/// order of one vessel of thin feed: phosphates and blends, other salts, traces, chelates, calcium last,
/// acids and bases after or before all (common practice; what would fall out of the finished feed is
/// computed, not assumed). Errors: OutOfRange ("direct.present", "direct.reading"): more than the vessel
/// holds, or a reading below the water's own.
Result<DirectMix> mixDirectly(const MixResult& waterAlone, const std::vector<ShelfProduct>& shelf,
                              const std::vector<Mass>& grams, Volume vessel, const DirectPlan& plan);

} // namespace butte::core
