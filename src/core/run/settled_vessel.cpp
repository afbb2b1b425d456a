#include "run/settled_vessel.h"

#include "formula/mix.h"

namespace butte::core {

StockAnswer settledVessel(const RunPlan& plan, std::size_t vessel, const std::vector<Mass>& content,
                          Volume volume) {
  const auto& planned = plan.vessels[vessel];
  StockPlan tank;
  tank.factor = planned.factor;
  tank.tanks = {{planned.name, volume}};
  if (planned.factor <= 1) { // it is the feed: its water counts
    const auto water = mix(plan.water, plan.shelf, std::vector<Mass>(plan.shelf.size()), volume);
    tank.tanks[0].makeUpPerLitre = water.solutesPerLitre;
  }
  for (const auto& product : plan.shelf)
    tank.shares[product.id] = {1};
  return planStock(plan.shelf, content, volume * planned.factor, tank);
}

} // namespace butte::core
