#pragma once
#include "tank/reservoir_content.h"

#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace butte::core {

/// What was done to a vessel, or read of it: one line of its log. A log is kept in the order of its days.
namespace logged {
/// Feed, water, stock or acid: what it holds is known by the litre.
struct Poured {
  FeedContent liquid;
  Volume volume;
  bool operator==(const Poured&) const = default;
};
/// Poured up to a mark: how much follows from what stood in it.
struct FilledTo {
  FeedContent liquid;
  Volume mark;
  bool operator==(const FilledTo&) const = default;
};
/// Salts, or a charge that a growing medium brought: dry, or in so little water that it does not count.
struct Dissolved {
  NutrientAmounts milligrams;
  double alkalinityMeq = 0;
  bool operator==(const Dissolved&) const = default;
};
struct Drained {
  Volume volume;
  bool operator==(const Drained&) const = default;
};
/// All of it thrown away.
struct Emptied {
  bool operator==(const Emptied&) const = default;
};
struct Rained {
  Volume volume;
  bool operator==(const Rained&) const = default;
};
/// What meters said. A standard deviation stands for how far each can be trusted (of EC as a share).
struct Read {
  std::optional<Conductivity> at25;
  double conductivitySd = 0.02;
  std::optional<double> ph;
  double phSd = 0.1;
  std::optional<Volume> level;
  Volume levelSd;
  bool operator==(const Read&) const = default;
};
/// A laboratory's figures of what stood in it.
struct Analysed {
  NutrientAmounts milligramsPerLitre;
  std::vector<Nutrient> named;
  double relativeSd = 0.05;
  bool operator==(const Analysed&) const = default;
};
} // namespace logged

using TankDeed = std::variant<logged::Poured, logged::FilledTo, logged::Dissolved, logged::Drained,
                              logged::Emptied, logged::Rained, logged::Read, logged::Analysed>;

struct TankEntry {
  double day = 0; ///< from the log's own start
  TankDeed deed;
};

} // namespace butte::core
