#pragma once
#include "water/examine.h"

namespace butte::core {

/// Ways to read a report so that it balances and agrees with the meter, the likeliest first; at most four.
/// Nothing is applied: a person chooses.
std::vector<Rereading> rereadingsOf(const TypedReport& report);

} // namespace butte::core
