#pragma once
#include "base/result.h"
#include "units/quantity.h"

#include <functional>
#include <optional>
#include <vector>

namespace butte::core {

/// What a meter reads with so many mL of each stock in a litre of finished feed. Must rise with the dose.
using DoseCurve = std::function<Conductivity(double mlPerLitre)>;

/// The straight line through the water and one reading.
DoseCurve straightCurve(Conductivity water, Conductivity atDose, double mlPerLitre);

/// The dose at which the curve reads this; nothing where it stands above from the start, or never gets there.
std::optional<double> doseAt(const DoseCurve& curve, Conductivity reading);

/// What brings a vessel to a reading: stock of each kind, or water. One of them is 0.
struct ReachReading {
  Volume stockEach;
  Volume water;
  double doseNowMlPerLitre = 0, doseThenMlPerLitre = 0;
};

/// `volume` stands at `now` and shall read `target`, with `stocks` kinds of stock given in equal measure.
/// What is poured in adds to the volume. Errors: OutOfRange ("volume_l", "ec_now", "ec_target"): a reading
/// below the water's own, or one that no dose reaches.
Result<ReachReading> reachReading(Volume volume, Conductivity now, Conductivity target, int stocks,
                                  const DoseCurve& curve);

/// One addition of a cautious way there.
struct ReachStep {
  Volume stockEach, water;
  Conductivity expected; ///< after stirring
  Volume volumeAfter;
};

/// The same in parts: half of what is missing, stir, read, the rest. Water in two parts alike.
Result<std::vector<ReachStep>> reachInSteps(Volume volume, Conductivity now, Conductivity target, int stocks,
                                            const DoseCurve& curve, bool cautious);

} // namespace butte::core
