#pragma once
#include <string>

namespace butte::book {

/// "Ca" and "mg/L" to "ca (mg/l)": names in a header are compared in lower case.
std::string columnOf(const std::string& key, const std::string& unit);

} // namespace butte::book
