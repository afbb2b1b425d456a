#pragma once
#include "run/run_trouble.h"

#include <QString>

namespace butte::app {

class BenchEdits;
class UnitsShown;

/// What has come into a vessel that was not meant for it, what falls out there and what the plants would
/// lack: a verdict for the hand. Empty where all is as planned.
struct RunTroubleWords {
  QString text;
  bool spoilt = false;               ///< something falls out
  std::optional<core::Misplaced> to; ///< what is left out elsewhere, since it is in here
};
RunTroubleWords runTroubleWords(const BenchEdits& run, const UnitsShown& units);

} // namespace butte::app
