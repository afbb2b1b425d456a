#pragma once

namespace butte::core {

/// How much of an opened bag of a hygroscopic salt may be water that the air brought, at most, so many
/// seconds after it was opened; none where it was closed well. A percentage point a month, up to ten: what
/// clumps and then runs is thrown away (common practice, from memory; it hangs on the room's air, so a dried
/// sample decides).
double likelyWaterShare(double secondsOpen);

} // namespace butte::core
