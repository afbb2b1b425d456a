#pragma once
#include <optional>
#include <string>
#include <string_view>

namespace butte::core {

/// A number with what stands behind it, as typed: "500 mL" is "500" and "mL".
struct TypedFigure {
  std::string number; ///< reads with parseDecimal()
  std::string unit;   ///< blanks trimmed; empty: none
};

/// Parts a typed figure into number and unit. Nothing where it does not begin with a number.
std::optional<TypedFigure> typedFigure(std::string_view text);

/// The name of a unit (unitNames(), "C", "F", "%") as hands type it: "ml", "litres", "lbs", "gal", "uS/cm",
/// "°C". A bare gallon is the US one, an ounce one of mass; "ppm" stays "ppm", since it depends on what is
/// measured. Nothing where no such unit is known. Common practice.
std::optional<std::string> unitTyped(std::string_view text);

/// What was typed, in the unit that a field asks for, as digits with a decimal point: those typed where it is
/// the same unit, else converted to nine figures. `substance` as in convert(). Nothing where it is not of
/// that quantity.
std::optional<std::string> digitsIn(const TypedFigure& typed, std::string_view unit,
                                    std::string_view substance = {});

} // namespace butte::core
