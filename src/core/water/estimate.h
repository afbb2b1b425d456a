#pragma once
#include "water/water.h"

namespace butte::core {

/// Fills what a water's report leaves open among Ca, Mg, Na, Cl, S and nitrate nitrogen (and the alkalinity)
/// from its EC, hardness and alkalinity, each with an honest range in plusMinusMgPerL. Measured figures stay
/// as they are. With nothing known at all a middling tap of EC 0.5 mS/cm is taken, and the ranges are as wide
/// as taps differ. The splits are common practice; there is no source for a water nobody analysed.
void estimateRest(Water& water);

} // namespace butte::core
