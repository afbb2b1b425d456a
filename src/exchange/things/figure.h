#pragma once
#include "amount.h"
#include "base/problem.h"
#include "units/quantity.h"

#include <limits>
#include <optional>
#include <string>
#include <string_view>

/// The figures of the things that scripts and documents speak of, each described once: what it is called, its
/// unit, its limits. Both are read by the same code; they differ in how a figure is written.
namespace butte::exchange {

class ObjectReader;

/// How figures are written. A script: a JSON number, its unit in the key's name ("volume_l": 50). A document:
/// digits as a person typed them, with the unit beside where it may be any ("volume": {"amount": "50",
/// "unit": "L"}).
enum class Dialect { Script, Document };

inline constexpr double noLimit = std::numeric_limits<double>::infinity();

struct Figure {
  std::string_view script, document; ///< keys
  std::string_view unit;             ///< of the value that is read
  double least = 0, most = noLimit;
  bool typedUnit = false; ///< a document holds the unit beside the digits
  bool above = false;     ///< `least` itself is too little
};

/// The figure in its own unit; nothing where it is not given. What is no number, of another kind or outside
/// its limits is a problem at the figure's key: NotANumber, WrongType, UnknownUnit, OutsideLimits, NotAbove.
std::optional<double> figure(ObjectReader& reader, Dialect dialect, const Figure& what);

std::optional<core::Volume> volumeOf(ObjectReader& reader, Dialect dialect, const Figure& litres);
std::optional<core::Temperature> temperatureOf(ObjectReader& reader, Dialect dialect, const Figure& celsius);
std::optional<core::Conductivity> conductivityOf(ObjectReader& reader, Dialect dialect,
                                                 const Figure& milliSiemens);

/// An amount of a document as it was typed, once it reads as `what`.
std::optional<Amount> typedAmount(ObjectReader& reader, const Figure& what);

/// A problem where `value` lies outside the limits of `what`; nothing where it is good.
std::optional<core::Problem> outside(const Figure& what, double value, const std::string& asGiven);

} // namespace butte::exchange
