#pragma once
#include <string>
#include <string_view>

namespace butte::reading {

/// A word as a picture's reader gave it, with what it commonly mistakes in units set right: "mg/1" and
/// "mg/I" are mg/l, "pS/cm" is µS/cm. A word that could be a figure is left as it stands.
std::string mendedWord(std::string_view word);

} // namespace butte::reading
