#pragma once
#include "stock/stock.h"

namespace butte::core {

/// How a tank is made up: part of the water, the salts, then the rest to the mark.
struct DissolvingPlan {
  Temperature coldWater = Temperature::fromCelsius(12);
  Temperature hotWater = Temperature::fromCelsius(50); ///< warm, not boiling (common practice)
  Temperature wanted = Temperature::fromCelsius(20);   ///< of the finished stock
  double firstShare = 0.5; ///< of the water that goes in before the salts (common practice: half)
};

struct Chill {
  std::size_t product = 0; ///< index into the shelf
  double kilojoules = 0;   ///< taken from the water; negative: it warms
};

struct Dissolving {
  std::vector<Chill> chills;        ///< the coldest first
  std::vector<std::size_t> unknown; ///< products of the tank whose heat is not known
  double kilojoules = 0;            ///< of those that are known
  Volume addedWater;                ///< beside what the salts bring: the salts take up the rest of the tank
  Temperature lowest;               ///< with all the salts in the first part of cold water
  Temperature finished;             ///< made up to the mark with cold water
  /// Of the water, so much hot makes the finished stock as warm as wanted; 0 where it is so anyway. Nothing
  /// where even all of it hot would not.
  std::optional<Volume> hot;
};

/// Heat balance of a tank: 4.18 kJ for each kilogram of water and kelvin, none for salts and vessel (the
/// salts bind about what they add). Heats at infinite dilution, so the chill is the most that can be.
Dissolving dissolve(const std::vector<ShelfProduct>& shelf, const TankContent& tank,
                    const DissolvingPlan& plan);

} // namespace butte::core
