#pragma once
#include "chem/nutrient.h"

namespace butte::core {

/// Signed charge of the ion that carries the element in a feed, as in chem/ions.h: phosphorus one, sulfur
/// two, as H2PO4- and SO4--; the sum N as nitrate; trace elements, silicon and urea none.
int chargeInFeed(Nutrient nutrient);

} // namespace butte::core
