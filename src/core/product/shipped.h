#pragma once
#include "product/catalogue.h"
#include "product/shelf_product.h"

namespace butte::core {

/// A shipped product as it comes onto a shelf: free, without a price.
inline ShelfProduct shippedProduct(const CatalogueProduct& entry) {
  ShelfProduct product;
  product.id = entry.id;
  product.name = entry.shortName;
  product.composition = entry.composition;
  product.liquid = entry.liquid;
  product.densityKgPerL = entry.densityKgPerL;
  return product;
}

} // namespace butte::core
