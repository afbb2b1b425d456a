#pragma once
#include "product/shelf_product.h"

#include <vector>

namespace butte::core {

/// The catalogue's salts, chelates and silicates that are not on the shelf (nor the same substance under
/// another name), as products that could be bought. Acids and bases are no free source and stay out.
std::vector<ShelfProduct> catalogueCandidates(const std::vector<ShelfProduct>& shelf);

} // namespace butte::core
