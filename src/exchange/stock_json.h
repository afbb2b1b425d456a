#pragma once
#include "json_reader.h"
#include "stock_document.h"

namespace butte::exchange {

/// Reads `stock`.
core::StockPlan readStockDocument(const Json& stock, const std::string& path,
                                  std::vector<DocumentTank>& tanks, std::optional<core::Problem>& problem);

/// Reads `dosing`.
DosingDocument readDosingDocument(const Json& dosing, const std::string& path, std::size_t tankCount,
                                  std::optional<core::Problem>& problem);

} // namespace butte::exchange
