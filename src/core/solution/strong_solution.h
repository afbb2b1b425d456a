#pragma once
#include "solution/equilibrium.h"

namespace butte::core {

/// What changes where a solution is strong: by how much each component's activity, and that of water, stand
/// off from what the dilute model (solution/activity.h) says.
///
/// Dilute solutions are known by their pairs and acids, strong ones by Pitzer's parameters for whole ions
/// (solution/pitzer.h). Both are good between `bothHoldFrom` and `bothHoldTo`: there one passes into the
/// other without a step, by the ionic strength of the whole ions. Pairs that Pitzer's parameters cover are
/// counted with their ions there, so that no solute counts twice; acids, chelates and pairs without
/// parameters stay as the dilute model has them.
inline constexpr double bothHoldFrom = 0.1, bothHoldTo = 0.4; ///< mol/kg

/// The correction of this settled solution at its temperature; none below `bothHoldFrom`.
StrongCorrection strongCorrection(const Equilibrium& settled, double celsius);

} // namespace butte::core
