#pragma once
#include <string>

namespace butte::exchange {

/// A figure as it was typed: digits with a decimal point, in a unit or, where that is empty, plain. No
/// digits: nothing was typed.
struct Amount {
  std::string digits;
  std::string unit;

  bool isEmpty() const { return digits.empty(); }
  double value() const; ///< in its own unit; 0 where nothing was typed
  bool operator==(const Amount&) const = default;
};

} // namespace butte::exchange
