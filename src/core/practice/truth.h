#pragma once
#include "practice/mishaps.h"
#include "run/run_event.h"

#include <variant>
#include <vector>

namespace butte::core {

/// What a helper wears.
enum class Gear { Goggles, Gloves, Mask };
inline constexpr std::size_t gearCount = 3;

/// What truly happens at a practice bench, whatever is told of it. `vessel` and `product` are indices into
/// the plan.
namespace truly {
struct Wore {
  Gear piece{};
  bool operator==(const Wore&) const = default;
};
struct Poured {
  std::size_t vessel = 0;
  Volume volume;
  bool operator==(const Poured&) const = default;
};
/// Into the cup on the scale; below zero: out of it.
struct Filled {
  std::size_t product = 0;
  Mass mass;
  bool operator==(const Filled&) const = default;
};
/// The other cup is taken up: it holds this.
struct TookOtherCup {
  std::size_t product = 0;
  Mass mass;
  bool operator==(const TookOtherCup&) const = default;
};
/// All that is in the cup at hand.
struct Tipped {
  std::size_t vessel = 0;
  bool operator==(const Tipped&) const = default;
};
struct Stirred {
  std::size_t vessel = 0;
  bool operator==(const Stirred&) const = default;
};
/// A mishap begins.
struct Happened {
  PlannedMishap what;
  bool operator==(const Happened&) const = default;
};
/// The helper saw it, and did what ends it.
struct Mended {
  Mishap mishap{};
  bool operator==(const Mended&) const = default;
};
} // namespace truly

using TrueDeed = std::variant<truly::Wore, truly::Poured, truly::Filled, truly::TookOtherCup, truly::Tipped,
                              truly::Stirred, truly::Happened, truly::Mended>;

struct TrueEvent {
  std::int64_t atMilliseconds = 0; ///< since 1970, UTC
  std::size_t afterTold = 0;       ///< so many events of the run had been told
  TrueDeed deed;
  bool operator==(const TrueEvent&) const = default;
};

} // namespace butte::core
