#pragma once
#include <string>
#include <string_view>
#include <vector>

namespace butte::core {

/// What growers call a product of the catalogue besides its chemical name ("Epsom salt", "vinegar"), by its
/// id; data/common_names.csv, common practice. A name may stand for several products ("pH down").
std::vector<std::string> commonNamesOf(std::string_view productId);

} // namespace butte::core
