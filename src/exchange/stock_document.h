#pragma once
#include "dose/dosing.h"
#include "dose/vessel.h"
#include "stock/stock.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::exchange {

/// What the window needs of a tank beside the core's view of it.
struct DocumentTank {
  std::string madeWith; ///< "pure", "blend" or "part:0", "part:1" ...
  std::optional<core::Vessel> vessel;
};

using DosingDevice = core::DosingDevice;
using core::deviceKey;

/// All that a formula says of dosing (docs/formats/formula.md).
struct DosingDocument : core::DosingPlan {
  std::string mixedOn;   ///< ISO date; empty: not said
  std::string besideUid; ///< another formula of the book whose tanks stand beside these
};

inline constexpr std::size_t mostTanks = 8;

} // namespace butte::exchange
