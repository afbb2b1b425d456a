#pragma once
#include "base/problem.h"

#include <string>
#include <string_view>
#include <vector>

/// Every way in for a file or a text that somebody else made.
namespace butte::attack {

struct Reader {
  std::string name;
  std::vector<std::string> seeds;      ///< files below tests/attack/seeds, or the demo's
  bool (*take)(std::string_view text); ///< whether it was taken; ends the program where a promise breaks
};

const std::vector<Reader>& readers();
const Reader& readerNamed(std::string_view name);

/// A broken promise: says which, and ends the program, so that a fuzzer sees it too.
[[noreturn]] void broken(const std::string& promise, std::string_view input);

/// What is refused is refused in words that can be shown: one line, no control characters. False.
bool refused(const core::Problem& problem, std::string_view input);

} // namespace butte::attack
