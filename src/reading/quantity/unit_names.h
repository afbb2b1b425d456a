#pragma once
#include "text/atoms.h"

#include <string>
#include <string_view>
#include <vector>

namespace butte::reading {

/// A unit as typed, and what it is in one that core::convert() knows.
struct TypedUnit {
  std::string unit;  ///< "?kg" is one of several: a ton
  double factor = 1; ///< of it in one of the typed unit
};

/// The longest name of a unit from `at` on; `length` 0 where there is none.
struct UnitName {
  std::size_t length = 0;
  TypedUnit meaning;
};
UnitName unitNameAt(Atoms atoms, std::size_t at);

/// The name, as core::convert() has it, of a unit as a field shows it ("µS/cm", "%"); empty where it is none.
std::string unitNamed(std::string_view text);

} // namespace butte::reading
