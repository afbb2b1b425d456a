#pragma once
#include "chem/nutrient.h"
#include "product/shelf_product.h"

#include <optional>
#include <vector>

namespace butte::core {

/// What a kilogram of an element costs from one product.
struct ElementFromProduct {
  Nutrient nutrient = Nutrient::N;
  std::size_t product = 0;
  double pricePerKg = 0;
  bool isShared = false; ///< the product's price is shared among several wanted elements
};

/// So many grams (or mg/L: only the ratios matter) of an element that salts must bring.
struct WantedElement {
  Nutrient nutrient = Nutrient::N;
  double amount = 0;
};

struct ElementPrices {
  /// In the order wanted, then the cheapest first.
  std::vector<ElementFromProduct> sources;
  /// Of the cheapest feed that brings at least what is wanted: what one more kilogram of each element would
  /// add to its price (the dual values). 0 for an element that comes along for nothing.
  std::vector<std::optional<double>> marginalPerKg; ///< parallel to what is wanted; nothing without a source
  double cheapest = 0;                              ///< price of that feed, for the amounts wanted
};

/// A product that brings one wanted element carries its whole price; one that brings several
/// shares it by what these are worth at the margin (where none of them is worth anything there, by mass).
/// An element that no priced product brings is left out; nothing where none is left. Products without a
/// price, acids and bases are left out. A linear program's dual: Dantzig & Thapa, "Linear Programming 2", ch.
/// 5 (from memory).
std::optional<ElementPrices> elementPrices(const std::vector<ShelfProduct>& shelf,
                                           const std::vector<WantedElement>& wanted);

} // namespace butte::core
