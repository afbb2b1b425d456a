#pragma once
#include "text/atoms.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::reading {

/// A unit as papers write it, with the form that may stand in or behind it ("mg/L as N", "mg CaCO3/L").
struct UnitFound {
  std::size_t length = 0;        ///< atoms
  std::string unit;              ///< reportUnits(), or mS/cm, uS/cm, mS/m, S/m, uS/m, C, F, pH, g/L
  std::vector<std::string> form; ///< symbols: N, CaCO3
};

/// The longest unit from `at` on, before `end`.
std::optional<UnitFound> unitAt(Atoms atoms, std::size_t at, std::size_t end);

} // namespace butte::reading
