#include "dose/supply.h"

namespace butte::core {

std::vector<TankSupply> suppliesOf(const StockAnswer& stock, Volume feedPerDay, double days,
                                   double strength) {
  std::vector<TankSupply> out;
  for (const auto& content : stock.tanks) {
    TankSupply supply;
    supply.feedPerFill = content.tank.volume * (content.factor / strength);
    supply.drawnPerDay = feedPerDay * (strength / content.factor);
    if (feedPerDay > Volume{}) supply.daysPerFill = supply.feedPerFill / feedPerDay;
    supply.fillForDays = supply.drawnPerDay * days;
    out.push_back(supply);
  }
  return out;
}

std::vector<Mass> needFor(const std::vector<Mass>& grams, Volume batch, Volume feedPerDay, double days,
                          double strength) {
  std::vector<Mass> out;
  const double batches = feedPerDay * (days * strength) / batch;
  for (const auto& mass : grams)
    out.push_back(mass * batches);
  return out;
}

} // namespace butte::core
