#pragma once
#include "stock/shelf_meetings.h"

#include <vector>

namespace butte::core {

/// Share of each product per tank (products x tanks); an all-zero row is a product that is not placed.
///
/// What may not meet is what the equilibrium says of each pair. The calcium side goes into the first tank for
/// salts, what meets it into the second, what meets both into a third where there is one. Where the chemistry
/// leaves it open: iron chelates on the calcium side, traces on the other (common practice); the neutral
/// salts level the tanks' weights, and the heaviest of them is divided. A tank for traces takes all traces; a
/// tank for one product takes silicate, else calcium chloride, else what can stand with nothing; a tank for
/// acid takes the acids. Acids, bases and silicate go into no other tank unless a hand puts them there.
std::vector<std::vector<double>> splitByRules(const std::vector<ShelfProduct>& shelf,
                                              const std::vector<Concentration>& feed, const StockPlan& plan,
                                              ShelfMeetings& meetings);

} // namespace butte::core
