#pragma once
#include "scale/scale_line.h"

#include <cstdint>
#include <deque>
#include <optional>

namespace butte::devices {

/// What is to come onto the scale.
struct WeighTask {
  core::Mass wanted;    ///< beyond what was counted before
  core::Mass tolerance; ///< either way
  core::Mass step;      ///< the smallest difference the display shows
};

enum class WatchState {
  Silent,     ///< no line for WeighWatch::silentAfterMilliseconds
  Unreadable, ///< lines come, none of the last is a weight
  Fault,      ///< an error of the scale's own
  Overload,
  Underload,
  Busy,
  NotZero,  ///< something lies on it before anything was poured: to be tared
  Waiting,  ///< at zero and not still yet
  Ready,    ///< still at zero
  Filling,  ///< far from the end
  Near,     ///< less than a tenth is missing
  Settling, ///< within the band and not still yet
  Right,    ///< still within the band
  TooMuch,  ///< beyond it
  Lifted    ///< below zero: the container is off, or was tared wrongly
};

/// What looks wrong beside the state; the hand decides.
enum class WatchHint {
  None,
  TooCoarse,          ///< its display can't show the band: half a step of it is more
  LooksLikeContainer, ///< the first weight came at once, and no tare was ever seen
  ShowsLess,          ///< it shows less than it did: something holds it up, or some was taken out
  MovesUpAndDown      ///< a hand on it, a draught, something touches it
};

struct WatchNow {
  WatchState state = WatchState::Silent;
  WatchHint hint = WatchHint::None;
  core::Mass shown;        ///< on the display
  core::Mass fresh;        ///< of it, what was not counted before
  bool still = false;      ///< it has come to rest
  bool mayCapture = false; ///< Right for captureAfterMilliseconds, and nothing looks wrong
  std::string unit = "g";  ///< of its display
  int decimals = 0;
  core::Mass lessThanBefore; ///< with ShowsLess
};

/// Follows a scale while one product is poured: tells when its weight can be trusted, when it is right, and
/// what looks wrong. Knows no clock: times come with the lines, in milliseconds that only grow.
///
/// Still means: all of the last stillMilliseconds lie within three steps of the display (a flickering last
/// digit), and the scale says so itself where it says anything. A slow pour beneath a scale's own zero
/// tracking does not pass for still so quickly as its own mark would say (common practice).
class WeighWatch {
public:
  static constexpr std::int64_t silentAfterMilliseconds = 2500, stillMilliseconds = 800,
                                captureAfterMilliseconds = 700;

  /// The next product, or the next load: what lies there now and was counted stays counted.
  void setTask(const WeighTask& task);
  void take(const ScaleReading& reading, std::int64_t atMilliseconds);
  WatchNow now(std::int64_t atMilliseconds) const;

  /// What lies there now is counted: the next weight begins from it.
  void count(std::int64_t atMilliseconds);
  /// What was counted left the scale: it begins at zero again, and what sticks in the cup is to be tared.
  void emptied();
  /// What was counted last was not so.
  void uncount() { m_counted = {}; }
  /// What lies there now is the container: as pressing tare.
  void takeAsZero(std::int64_t atMilliseconds);
  /// What lies there is what was wanted, no container: it counts from zero.
  void isNoContainer() { m_containerDoubt = false, m_containerKnown = m_zeroSeen = true; }
  /// After a lost line: nothing that was shown before holds; what was counted stays.
  void lost();
  /// How many lines it holds: of seconds, never of an hour.
  std::size_t remembered() const { return m_shown.size(); }

private:
  struct Shown {
    std::int64_t at = 0;
    core::Mass mass;
    std::optional<bool> stable;
  };
  bool isStill(std::int64_t at) const;
  bool isBackAndForth() const;
  core::Mass spreadSince(std::int64_t from) const;
  core::Mass step() const;
  core::Mass nearZero() const;
  void learnFrom(const Shown& shown);
  WatchState stateOf(core::Mass fresh, bool still) const;
  WatchState weightless() const;

  WeighTask m_task;
  ScaleReading m_last; ///< the newest line that says anything
  std::int64_t m_lastAt = 0;
  bool m_heard = false;
  std::deque<Shown> m_shown; ///< of the last seconds
  core::Mass m_counted;      ///< of what is shown
  core::Mass m_plateau;      ///< the most that was shown still since the last count
  bool m_zeroSeen = false;   ///< since the task began, or something was counted
  bool m_containerKnown = false, m_containerDoubt = false;
  std::optional<std::int64_t> m_leftZeroAt, m_rightSince;
};

} // namespace butte::devices
