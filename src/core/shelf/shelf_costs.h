#pragma once
#include "shelf/shelf_account.h"

#include <map>

namespace butte::core {

/// What a product was offered or bought for.
struct PricePoint {
  std::int64_t atSeconds = 0;
  Money perKg;
  std::size_t lot = 0; ///< index into the lots
};

/// Every price of a product in the order of time.
std::vector<PricePoint> priceHistory(const std::string& product, const std::vector<ShelfLot>& lots);
/// The newest price of each product that is not later than `nowSeconds`, in any currency.
std::map<std::string, PricePoint> pricesToday(const std::vector<ShelfLot>& lots, std::int64_t nowSeconds);

/// What went into one batch (or into a vessel by one line of its log).
struct BatchCost {
  UseCost paid;  ///< by the lots that it came from
  UseCost today; ///< the same weights at today's prices
};

/// By what the uses name as their batch.
std::map<std::string, BatchCost> batchCosts(const std::vector<ShelfLot>& lots,
                                            const std::vector<ShelfEvent>& events,
                                            const ShelfAccount& account,
                                            const std::map<std::string, PricePoint>& today);

/// So much of a product at today's prices.
UseCost costToday(const std::string& product, Mass mass, const std::map<std::string, PricePoint>& today);

} // namespace butte::core
