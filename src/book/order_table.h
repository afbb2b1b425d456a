#pragma once
#include "measures.h"
#include "shelf_outlook.h"

#include <string>
#include <vector>

namespace butte::book {

/// What to buy as a CSV table, a line for each size of bag (docs/formats/tables.md).
std::string orderTable(const ShelfBook& shelf, const std::vector<ProductOutlook>& products,
                       const words::Measures& in);

} // namespace butte::book
