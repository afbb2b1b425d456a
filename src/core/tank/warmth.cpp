#include "tank/warmth.h"

#include <cmath>

namespace butte::core {

std::optional<double> hotShareFor(Temperature hot, Temperature cold, Temperature wanted) {
  const double apart = hot.celsius() - cold.celsius();
  if (apart == 0) return wanted == cold ? std::optional(0.0) : std::nullopt;
  const double share = (wanted.celsius() - cold.celsius()) / apart;
  return share < 0 || share > 1 ? std::nullopt : std::optional(share);
}

std::optional<double> heaterHours(Volume volume, Temperature from, Temperature to, double watts) {
  const double kelvin = to.celsius() - from.celsius();
  if (kelvin < 0 || !(watts > 0)) return std::nullopt;
  constexpr double kilojoulesPerWattHour = 3.6;
  return volume.litres() * heatPerLitreKelvin * kelvin / (watts * kilojoulesPerWattHour);
}

std::optional<double> followingRatePerHour(Temperature before, Temperature after, Temperature air,
                                           double hours) {
  const double gap = before.celsius() - air.celsius(), left = after.celsius() - air.celsius();
  if (!(hours > 0) || gap == 0 || !(left / gap > 0) || left / gap > 1) return std::nullopt;
  return -std::log(left / gap) / hours;
}

Temperature warmedTo(Temperature now, Temperature air, double ratePerHour, double hours) {
  return Temperature::fromCelsius(air.celsius() +
                                  (now.celsius() - air.celsius()) * std::exp(-ratePerHour * hours));
}

double oxygenAtSaturation(Temperature temperature) {
  const double t = temperature.celsius() + 273.15;
  return std::exp(-139.34411 + 1.575701e5 / t - 6.642308e7 / (t * t) + 1.243800e10 / (t * t * t) -
                  8.621949e11 / (t * t * t * t));
}

} // namespace butte::core
