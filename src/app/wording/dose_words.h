#pragma once
#include "stock/stock.h"

#include <QString>

namespace butte::app {

class UnitsShown;

/// How much of each tank goes into a litre of feed: one dose where all tanks are as strong, else each tank by
/// its name and ratio, since its own strength is its own dose.
QString doseOfTanks(const core::StockAnswer& stock, const UnitsShown& units);

/// True when the tanks that hold something are not all of one strength.
bool haveOwnStrengths(const core::StockAnswer& stock);

} // namespace butte::app
