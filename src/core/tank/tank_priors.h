#pragma once
#include "tank/crop_uptake.h"
#include "tank/reservoir_chemistry.h"
#include "tank/reservoir_flow.h"

#include <array>

namespace butte::core {

/// What is believed of a tank before its log says more, and how far each of it may be off (standard
/// deviations; shares where nothing else is said). Common practice where no source stands beside it.
struct TankPriors {
  ReservoirFlow flow; ///< likeliest; uptake as published for the crop
  ReservoirAir air;
  Volume full;

  /// Of the crop's uptake as a whole, and of its water: published means are of other places.
  double uptakeLevelSd = 0.15, transpirationSd = 0.3;
  /// Of each element beside the level: from the published range (NutrientAmounts by element).
  NutrientAmounts uptakeSd;
  /// How unlike two days are in what plants drink.
  double dayToDaySd = 0.25;
  /// How far level, water and balance of uptake wander in a day (as plants grow): shares per root of a day.
  double levelWander = 0.02, waterWander = 0.04, elementWander = 0.01;
  /// Alkalinity that comes or goes for reasons that are not in the balance, meq/L per root of a day.
  double alkalinityWander = 0.02;
  /// What is poured is as planned but for this: one strength for the whole pour.
  double pourSd = 0.03;
  /// A mark is met to this share of the full vessel.
  double markSd = 0.01;
  /// What a pen's own calibration may be off for good.
  double penGainSd = 0.03, penPhSd = 0.1;
};

/// With the published uptake, its ranges and the water of its season for so many square metres.
TankPriors priorsFor(const CropUptake& crop, double squareMetres, WaterSeason season);

} // namespace butte::core
