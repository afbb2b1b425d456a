#include "stock/dissolving.h"

#include "solution/water_properties.h"
#include "stock/heat_of_solution.h"

#include <algorithm>

namespace butte::core {

Dissolving dissolve(const std::vector<ShelfProduct>& shelf, const TankContent& tank,
                    const DissolvingPlan& plan) {
  Dissolving out;
  for (const auto& item : tank.items) {
    if (isAcidOrBase(shelf[item.product]) && shelf[item.product].liquid) continue; // see acid_tank.h
    if (const auto heat = heatTakenKilojoules(shelf[item.product], item.mass)) {
      out.chills.push_back({item.product, *heat});
      out.kilojoules += *heat;
    } else {
      out.unknown.push_back(item.product);
    }
  }
  std::stable_sort(out.chills.begin(), out.chills.end(),
                   [](const Chill& a, const Chill& b) { return a.kilojoules > b.kilojoules; });
  out.addedWater = tank.tank.volume * tank.addedWaterLitresPerLitre;
  out.lowest = out.finished = plan.coldWater;
  out.hot = Volume{};
  const double heatCapacity =
      out.addedWater.litres() * waterDensityKgPerLitre * waterHeatKilojoulesPerKgKelvin;
  if (heatCapacity <= 0) return out;
  const double cold = plan.coldWater.celsius(), warmth = plan.hotWater.celsius() - cold;
  const double chill = out.kilojoules / heatCapacity;
  out.lowest = Temperature::fromCelsius(cold - std::max(0.0, chill) / plan.firstShare);
  out.finished = Temperature::fromCelsius(cold - chill);
  const double lacking = plan.wanted.celsius() - out.finished.celsius();
  if (lacking <= 0) return out;
  if (warmth <= 0 || lacking > warmth) {
    out.hot.reset();
    return out;
  }
  out.hot = out.addedWater * (lacking / warmth);
  return out;
}

} // namespace butte::core
