#pragma once
#include "base/result.h"

#include <string>
#include <string_view>

namespace butte::reading {

/// What a hand typed, in the unit that was asked for.
struct TypedQuantity {
  double value = 0;
  /// As digits with a decimal point: those typed where it is the asked unit or none is given, else converted
  /// to nine figures.
  std::string digits;
};

/// Reads a quantity as hands type it, with its units or without: "500", "1 lb 3 oz", "2½ gal", "1 1/2 tsp",
/// "0,5 l", "1 250 g", "10 ml per gallon", "115 g/100 L", "1:100", "900 ppm500", "CF 18", "10 °dH", "60 %",
/// "25 lb bag". Names of units are those of data/typed_units.csv.
///
/// `unit`: as core::unitNames() names it, or "mL/L", "percent"; "" where a bare number is asked for.
/// `substance` as in core::convert(). A gallon is the US one unless an imperial one is asked for; "ppm" is
/// mg/L of a dilute feed, and of a meter only where its scale is asked for; 1:100 is 10 mL in 1 L finished,
/// and so is 1 %.
///
/// Problems: NotANumber; UnknownUnit (values: the unit's text); IncompatibleUnits (values: what was typed,
/// the unit asked for); Unclear (values: what was typed, what it could mean), so "1,250", "1 lb 3", "2 tons",
/// "900 ppm" of a meter.
core::Result<TypedQuantity> typedQuantity(std::string_view text, std::string_view unit,
                                          std::string_view substance = {});

} // namespace butte::reading
