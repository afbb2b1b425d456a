#include "stations/bench/scale_words.h"

#include "stations/bench/run_words.h"
#include "wording/tr.h"

namespace butte::app {

using devices::WatchHint;
using devices::WatchNow;
using devices::WatchState;
using Tone = ScaleWords::Tone;

namespace {

ScaleWords alarm(const QString& text) {
  return {"▲ " + text, Tone::Alarm};
}

ScaleWords hintWords(const WatchNow& now) {
  const auto display = displayOf(now);
  switch (now.hint) {
  case WatchHint::TooCoarse:
    return alarm(tr("This display is too coarse for it: a finer scale, and type what it shows"));
  case WatchHint::LooksLikeContainer:
    return alarm(tr("%1 came at once. Is that the container? Then tare.").arg(display.text(now.fresh)));
  case WatchHint::ShowsLess:
    return alarm(
        tr("It shows %1 less than before: a cord, a hand under it?").arg(display.text(now.lessThanBefore)));
  case WatchHint::MovesUpAndDown:
    return alarm(tr("It goes up and down: hands off, fans off"));
  case WatchHint::None:
    break;
  }
  return {};
}

} // namespace

ScaleWords scaleWords(const WatchNow& now, core::Mass toPour) {
  if (now.hint != WatchHint::None) return hintWords(now);
  const auto display = displayOf(now);
  switch (now.state) {
  case WatchState::Silent:
    return alarm(tr("Nothing comes from the scale: cable, switch? A typed weight counts too."));
  case WatchState::Unreadable:
    return alarm(tr("What it sends is no weight: see \"Scales and pens\""));
  case WatchState::Fault:
    return alarm(tr("The scale reports an error of its own"));
  case WatchState::Overload:
    return alarm(tr("Overload: take some off"));
  case WatchState::Underload:
    return alarm(tr("Underload: is its pan on?"));
  case WatchState::Busy:
    return {tr("The scale is at work"), Tone::Calm};
  case WatchState::NotZero:
    return alarm(tr("%1 lies on it already: tare, or say what it is").arg(display.text(now.shown)));
  case WatchState::Waiting:
    return {tr("Wait until it is still"), Tone::Calm};
  case WatchState::Ready:
    return {tr("At zero: pour"), Tone::Calm};
  case WatchState::Filling:
    return {tr("Pour"), Tone::Calm};
  case WatchState::Near:
    return {tr("Slowly now"), Tone::Calm};
  case WatchState::Settling:
    return {tr("Stop: it settles"), Tone::Good};
  case WatchState::Right:
    return {tr("Right: %1").arg(display.text(now.fresh)), Tone::Good};
  case WatchState::TooMuch:
    return alarm(
        tr("%1 too much: out with it while it is dry, or press Enter").arg(display.text(now.fresh - toPour)));
  case WatchState::Lifted:
    return alarm(tr("It shows %1: is the container off?").arg(display.text(now.shown)));
  }
  return {};
}

} // namespace butte::app
