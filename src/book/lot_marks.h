#pragma once
#include "shelf/shelf_lot.h"

#include <string>
#include <string_view>
#include <vector>

/// The lots that a weight of a batch came from, as the one text that a person may type and search for:
/// "KN-77", "KN-77, KN-81", "KN-77 (400 g), KN-81 (1.2 kg)".
namespace butte::book {

/// Marks are parted by commas; a weight in parentheses at the end of one says how much came from it.
std::vector<core::shelved::From> lotsIn(std::string_view text);
/// The same back. A weight stands only where there are several.
std::string lotsText(const std::vector<core::shelved::From>& lots);

} // namespace butte::book
