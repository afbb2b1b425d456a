#pragma once
#include <cstdint>
#include <deque>
#include <optional>
#include <string_view>
#include <vector>

namespace butte::devices {

/// What is thought of a reading that came by itself.
enum class SampleMark {
  Sound,
  Wild,  ///< beyond what can be, or a leap that the next ones took back
  Stuck, ///< the same figure to the last digit for a day: a float that hangs, a frozen line
  Clock, ///< its time can't be: before this program was written, or to come
};

/// How one quantity of one vessel is thinned and judged. A leap is the larger of a figure and a share of what
/// stands. Common practice; -127 and 85 degC are what the usual one-wire sensors say when they are not there.
struct GateRules {
  std::int64_t everySeconds = 900;
  double least = -1e15, most = 1e15; ///< that the quantity can have at all
  double leap = 1, leapShare = 0;    ///< between two samples: wild until others agree
  double step = 0.1, stepShare = 0;  ///< a change that is kept at once
};
/// By the quantity's code: "ec", "ph", "level", "temperature" and their like.
GateRules gateRulesFor(std::string_view quantity, std::int64_t everySeconds);

struct KeptSample {
  std::int64_t at = 0; ///< seconds since 1970 UTC
  double value = 0;
  SampleMark mark = SampleMark::Sound;
  bool operator==(const KeptSample&) const = default;
};

/// Lets through what is worth keeping: the median of each stretch of time, a lasting change at once, and of
/// what is wild one of a stretch, marked. Nothing goes silently: heard() counts all, wild() the wild ones.
class StreamGate {
public:
  explicit StreamGate(const GateRules& rules) : m_rules(rules) {}

  /// `now` is the computer's own clock, against times that can't be.
  std::vector<KeptSample> take(std::int64_t at, double value, std::int64_t now);
  /// What still waits, when nothing more is listened to.
  std::vector<KeptSample> close();

  std::int64_t heard() const { return m_heard; }
  std::int64_t wild() const { return m_wild; }
  bool isStuck() const;

private:
  struct Sample {
    std::int64_t at = 0;
    double value = 0;
  };
  void judge(const Sample& sample, std::vector<KeptSample>& out);
  void doubt(const Sample& sample, double ref, std::vector<KeptSample>& out);
  void dropDoubts(std::vector<KeptSample>& out);
  void keep(std::int64_t at, double value, std::vector<KeptSample>& out);
  void keepMarked(const Sample& sample, SampleMark mark, std::vector<KeptSample>& out);
  void follow(const Sample& sample);
  bool changedForGood() const;
  std::size_t agreeingNeeded() const;
  static double median(std::vector<Sample> samples);

  GateRules m_rules;
  std::vector<Sample> m_window, m_doubts; ///< since the last kept one; leaps that nothing agreed with yet
  std::deque<Sample> m_recent;
  std::optional<Sample> m_kept, m_last;
  std::optional<std::int64_t> m_markedAt;
  std::int64_t m_sameSince = 0, m_same = 0, m_heard = 0, m_wild = 0;
};

} // namespace butte::devices
