#pragma once
#include <optional>
#include <string_view>

namespace butte::core {

/// Standard atomic weight in g/mol for an element symbol ("Ca"); nothing for an unknown symbol or for an
/// element without a standard atomic weight (technetium, radium ...).
std::optional<double> atomicWeight(std::string_view symbol);

} // namespace butte::core
