#pragma once
#include "scale/weigh_watch.h"

#include <QString>

namespace butte::app {

/// What the hand at the scale is told in a moment, and how pressing it is.
struct ScaleWords {
  enum class Tone { Calm, Good, Alarm };
  QString text;
  Tone tone = Tone::Calm;
};

ScaleWords scaleWords(const devices::WatchNow& now, core::Mass toPour);

} // namespace butte::app
