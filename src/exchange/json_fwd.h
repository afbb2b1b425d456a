#pragma once
#include <nlohmann/json_fwd.hpp>

namespace butte::exchange {

/// Keeps the order of keys: the first tank named is the calcium side. Headers name it through this one; only
/// who looks inside reads json_reader.h.
using Json = nlohmann::ordered_json;

} // namespace butte::exchange
