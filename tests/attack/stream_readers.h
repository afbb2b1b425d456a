#pragma once
#include <string_view>

/// What loggers send.
namespace butte::attack {

bool takeStreamFile(std::string_view text);  ///< a table that grows
bool takeStreamLines(std::string_view text); ///< lines, payloads, registers, addresses
bool takeStream(std::string_view text);      ///< a logger as the book keeps it

} // namespace butte::attack
