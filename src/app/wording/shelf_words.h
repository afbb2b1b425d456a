#pragma once
#include "document/shelf_story.h"

#include <QString>
#include <vector>

namespace butte::app {

class UnitsShown;

/// "53.30 EUR"
QString moneyText(const core::Money& money);
/// Several currencies side by side; a dash where there is none.
QString moneyText(const std::vector<core::Money>& money);
/// "1.24 EUR per kg", in the unit of sacks.
QString pricePerBulk(double perKg, const std::string& currency, const UnitsShown& units);
/// "46.9 kg", "12.4 lb": what is weighed by the sack, in the unit of sacks.
QString sackText(core::Mass mass, const UnitsShown& units);

/// "7.8 weeks", "4 days"; "over 2 years" and the like where the shelf does longer than was worked out.
QString lastsText(const book::ProductOutlook& product);
/// "runs out in 4 days: order now", "order within 5 days"; empty where there is time.
QString hurryText(const book::ProductOutlook& product);
/// "5.9 kg a week (4.1 to 7.7)".
QString useText(const book::ProductOutlook& product, const UnitsShown& units);
/// Where the need ahead is known from.
QString needFromText(core::NeedFrom from);
/// "KN-445 · 27 Aug 2026 · 2 × 25 kg · 21.9 kg left ..."
QString lotText(const ShelfStory& story, std::size_t lot, const UnitsShown& units);
/// What was done to it.
QString shelfLineText(const book::ShelfLine& line, const UnitsShown& units);
/// "2 × 25 kg (depot) + 1 × 5 kg (harbour store)".
QString orderText(const ShelfStory& story, const book::ProductOutlook& product, const UnitsShown& units);
/// Of an opened bag that takes water from the air: what it may hold now and how to find out; else empty.
QString dampText(const ShelfStory& story, std::size_t lot);

} // namespace butte::app
