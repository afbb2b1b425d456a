#pragma once
#include "base/result.h"

#include <string>
#include <string_view>
#include <vector>

namespace butte::core {

/// Converts between any two units that Butte knows, by name (see unitNames()).
/// `substance` (an element key, an ion, an oxide or a formula) is needed between mass and amount or
/// equivalents; pass "" for none. `from` and `to` may also both be substances: then mass of one is turned
/// into the mass of the other that holds the same atoms ("P2O5" to "P"). Errors: UnknownUnit,
/// IncompatibleUnits, NeedsSubstance, UnknownSubstance, NoCharge. Without a substance, mmol/L to and from a
/// hardness unit counts a divalent ion (Ca or Mg).
Result<double> convert(double value, std::string_view from, std::string_view to,
                       std::string_view substance = {});

/// Every unit name, in groups that convert into each other.
std::vector<std::string> unitNames();

} // namespace butte::core
