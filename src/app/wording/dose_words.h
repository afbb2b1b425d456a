#pragma once
#include "dose/ratio.h"
#include "stock/stock.h"

#include <QString>

namespace butte::app {

class UnitsShown;

/// How a dilution is stated: "1 :", "mL per US gal".
QString ratioFormWords(core::RatioForm form);

/// The dose of a stock so many times as strong as the feed, in the form that the hand chose ("10.0 mL per US
/// gal"); in the units shown where it chose a mere ratio.
QString statedDose(core::RatioForm form, double factor, const UnitsShown& units);

/// How much of each tank goes into a litre of feed: one dose where all tanks are as strong, else each tank by
/// its name and ratio, since its own strength is its own dose.
QString doseOfTanks(const core::StockAnswer& stock, core::RatioForm form, const UnitsShown& units);

/// True when the tanks that hold something are not all of one strength.
bool haveOwnStrengths(const core::StockAnswer& stock);

} // namespace butte::app
