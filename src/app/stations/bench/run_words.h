#pragma once
#include "bench/weigh_plan.h"
#include "run/run_advice.h"
#include "scale/weigh_watch.h"

#include <QString>
#include <QStringList>

namespace butte::app {

class BenchEdits;
class UnitsShown;

/// What the display of the scale shows that a weight goes on, and how finely.
struct OnDisplay {
  std::string unit; ///< "g", "kg", "oz", "lb", "lb:oz"
  int decimals = 0;
  QString text(core::Mass mass) const;
};
/// As a live scale shows it.
OnDisplay displayOf(const devices::WatchNow& now);
/// The step of a farm's scale by its name; nothing where it is not known, or a set of spoons.
core::Mass stepOfScale(const std::vector<core::Scale>& scales, const std::string& name);
/// Of the product that is in hand: of the scale that the sheet weighs it on too.
OnDisplay shownNow(const BenchEdits& run, const UnitsShown& units);

/// Of the product in hand where level spoons measure it; nothing where it is weighed.
std::optional<core::WeighStep> spoonsNow(const BenchEdits& run);

/// What the hand does next: "Weigh potassium nitrate".
QString runHeading(const BenchEdits& run);
/// Its one figure, large: "4.94 lb"; empty where there is none.
QString runFigure(const BenchEdits& run, const UnitsShown& units);
/// What the figure is: "to weigh", "still to pour" and what is on the scale.
QString runFigureNote(const BenchEdits& run, const std::optional<devices::WatchNow>& live);
/// What else matters now, such as what lies in the cup, how long it dissolves.
QString runDetail(const BenchEdits& run, const UnitsShown& units, qint64 nowMilliseconds);
/// What the product in hand asks of it: two lines at most.
QString runCautions(const BenchEdits& run);
/// What can be done while something dissolves or rests, or the way back.
QString meanwhileWords(const BenchEdits& run);
/// Whether the vessel that is to be read has rested long enough.
bool hasRested(const BenchEdits& run, qint64 nowMilliseconds);
/// What the one large button does.
QString runDone(const BenchEdits& run, const UnitsShown& units);
/// The water to begin the vessel in hand with, as the run is scaled now.
core::Volume waterToBeginWith(const BenchEdits& run);
/// The newest events first, those that were struck left out.
QStringList runLog(const BenchEdits& run, const UnitsShown& units, int most);
/// "Ca +10.0 %, EC 1.45 to 1.51 mS/cm"
QString acceptedWords(const core::Overshoot& over, const UnitsShown& units);

} // namespace butte::app
