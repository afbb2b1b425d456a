#pragma once
#include "shelf/shelf_lot.h"

#include <cstddef>

namespace butte::core {

/// Bags of one size that can be bought.
struct BagOffer {
  Mass bag;
  double price = 0; ///< of a bag, above 0
};

/// So many bags of each offer, parallel to them.
struct BagOrder {
  std::vector<int> bags;
  Mass mass;
  double cost = 0;
};

/// The cheapest whole bags that bring at least `needed`; among equally cheap orders one that brings most.
/// Nothing where there is no offer, a bag or a price is not above 0, more than mostBagsOrdered would be
/// wanted, or the search is too long to prove it. An integer program (GLPK).
std::optional<BagOrder> cheapestBags(Mass needed, const std::vector<BagOffer>& offers);

inline constexpr int mostBagsOrdered = 100000;

} // namespace butte::core
