#pragma once
#include "run/run_plan.h"

#include <array>
#include <cstdint>
#include <optional>
#include <string_view>
#include <vector>

namespace butte::core {

/// What goes wrong at a practice run, unsaid: the helper has to see it.
enum class Mishap {
  Draught,        ///< a window stands open: the display dances
  MislabelledCup, ///< the tub holds another salt than is written on its lid
  WontDissolve,   ///< a salt that takes far more stirring than the others
  DriftingPen,    ///< the pens show wrong until they are checked in a standard
  SwappedCups,    ///< two filled cups stand there, and the nearer one is not the one just weighed
};
inline constexpr std::array<Mishap, 5> allMishaps{
    Mishap::Draught, Mishap::MislabelledCup, Mishap::WontDissolve, Mishap::DriftingPen, Mishap::SwappedCups};

/// "draught", "mislabelled_cup" ...: how the book names one.
std::string_view mishapKey(Mishap mishap);
std::optional<Mishap> mishapFromKey(std::string_view key);

/// One mishap and where it waits.
struct PlannedMishap {
  Mishap mishap{};
  std::size_t vessel = 0;
  std::size_t product = 0; ///< of the step; none for a pen
  std::size_t other = 0;   ///< what is in the tub or the other cup instead
  bool operator==(const PlannedMishap&) const = default;
};

/// Three to five mishaps of a plan, no two at one step; fewer where there are fewer steps. The same seed
/// gives the same ones.
std::vector<PlannedMishap> seedMishaps(const RunPlan& plan, std::uint64_t seed);

} // namespace butte::core
