#pragma once
#include "base/result.h"
#include "script_input.h"

#include <iosfwd>
#include <string>

namespace butte::cli {

/// Solves every target of the input with every water and writes one line each to a CSV file
/// (docs/formats/script.md). `progress` gets a bar that redraws itself; null: none. Errors: MissingKey,
/// BadFile, those of solve().
core::Result<std::size_t> solveBatch(const exchange::ScriptInput& input, const std::string& csvFile,
                                     std::ostream* progress);

} // namespace butte::cli
