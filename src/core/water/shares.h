#pragma once
#include <cstddef>
#include <vector>

namespace butte::core {

/// Shares of a blend with one of them given another value (of a whole of 1), the others keeping their
/// proportions; even among them where they had none. `shares` may sum to anything; the result sums to 1.
std::vector<double> withShareOf(const std::vector<double>& shares, std::size_t index, double share);

} // namespace butte::core
