#pragma once
#include "base/result.h"
#include "product/shelf_product.h"
#include "units/quantity.h"

#include <string_view>

namespace butte::reading {

/// What a hand types of a product where its weight is asked for, as the weight in `batch` of finished feed:
/// a rate as labels state it ("115 g per 100 L", "0.5 fl oz per gallon", "1:200" of a liquid), a liquid's
/// volume ("5 ml"), level spoons of a dry one ("2 tsp", "1 tsp per gallon"; core::levelTeaspoon()).
/// Problems: those of typedQuantity(); IncompatibleUnits where a liquid's density is not known.
core::Result<core::Mass> typedDose(std::string_view text, const core::ShelfProduct& product,
                                   core::Volume batch);

} // namespace butte::reading
