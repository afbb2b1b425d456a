#pragma once
#include "chem/nutrient.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// What plants bear of an element in their feed (data/safe_ceilings.csv, each row with its source).
struct SafeCeiling {
  Nutrient nutrient{};
  std::string crop;                        ///< "" for any
  std::optional<double> unaskedMostMgPerL; ///< a formula brings no more of it unless a target or a cap asks
  std::optional<double> harmfulAboveMgPerL;
  std::string why, source, confidence;
};
const std::vector<SafeCeiling>& safeCeilings();

/// The most that a formula may bring where nobody asked for the element, mg/L; nothing where it stays free.
std::optional<double> unaskedMost(Nutrient nutrient);

/// An element that stands where it harms plants, whatever the target says.
struct HarmfulLevel {
  Nutrient nutrient{};
  double milligramsPerLitre = 0, harmfulAbove = 0;
  std::string crop; ///< whose limit it is; "" for that of any crop
  bool operator==(const HarmfulLevel&) const = default;
};

/// The harmful ones of a feed, the worst first. A limit of the crop's own counts before that of any.
std::vector<HarmfulLevel> harmfulLevels(const NutrientAmounts& milligramsPerLitre, const std::string& crop);

} // namespace butte::core
