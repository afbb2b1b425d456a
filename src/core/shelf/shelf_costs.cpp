#include "shelf/shelf_costs.h"

#include <algorithm>

namespace butte::core {

std::vector<PricePoint> priceHistory(const std::string& product, const std::vector<ShelfLot>& lots) {
  std::vector<PricePoint> out;
  for (std::size_t i = 0; i < lots.size(); ++i)
    if (const auto price = lots[i].pricePerKg(); price && lots[i].product == product)
      out.push_back({lots[i].boughtAtSeconds, {lots[i].currency, *price}, i});
  std::stable_sort(out.begin(), out.end(),
                   [](const auto& a, const auto& b) { return a.atSeconds < b.atSeconds; });
  return out;
}

std::map<std::string, PricePoint> pricesToday(const std::vector<ShelfLot>& lots, std::int64_t nowSeconds) {
  std::map<std::string, PricePoint> out;
  for (std::size_t i = 0; i < lots.size(); ++i) {
    const auto price = lots[i].pricePerKg();
    if (!price || lots[i].boughtAtSeconds > nowSeconds) continue;
    const auto known = out.find(lots[i].product);
    if (known != out.end() && known->second.atSeconds > lots[i].boughtAtSeconds) continue;
    out[lots[i].product] = {lots[i].boughtAtSeconds, {lots[i].currency, *price}, i};
  }
  return out;
}

UseCost costToday(const std::string& product, Mass mass, const std::map<std::string, PricePoint>& today) {
  UseCost out;
  const auto price = today.find(product);
  if (price == today.end())
    out.unpriced = mass;
  else
    out.money.push_back({price->second.perKg.currency, price->second.perKg.amount * mass.kilograms()});
  return out;
}

std::map<std::string, BatchCost> batchCosts(const std::vector<ShelfLot>& lots,
                                            const std::vector<ShelfEvent>& events,
                                            const ShelfAccount& account,
                                            const std::map<std::string, PricePoint>& today) {
  std::map<std::string, BatchCost> out;
  for (const auto& use : account.uses) {
    const auto& used = std::get<shelved::Used>(events[use.event].what);
    auto& batch = out[used.batch];
    addCost(batch.paid, costOf(use, lots));
    addCost(batch.today, costToday(used.product, used.mass, today));
  }
  return out;
}

} // namespace butte::core
