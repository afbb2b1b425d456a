#include "tank/tank_priors.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

/// A range as a standard deviation of the logarithm.
double relativeSd(const PublishedRange& range) {
  if (!(range.low > 0) || !(range.high > range.low)) return 0.2;
  return std::log(range.high / range.low) / (2 * sigmasOfRange);
}

} // namespace

TankPriors priorsFor(const CropUptake& crop, double squareMetres, WaterSeason season) {
  TankPriors out;
  out.flow.uptake = crop.uptake();
  const auto& water = crop.waterLitresPerM2Day[static_cast<std::size_t>(season)];
  out.flow.transpirationLPerDay = water.value * squareMetres;
  out.transpirationSd = relativeSd(water);
  for (const auto& element : crop.elements)
    out.uptakeSd.add(element.nutrient, relativeSd(element.millimolesPerLitre));
  for (const auto& limit : crop.ballast)
    out.uptakeSd.add(limit.nutrient, relativeSd(limit.takenMillimolesPerLitre));
  return out;
}

} // namespace butte::core
