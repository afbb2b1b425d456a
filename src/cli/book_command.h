#pragma once
#include "verbs.h"

#include <functional>
#include <optional>

namespace CLI {
class App;
}

namespace butte::cli {

/// Adds the verbs over a farm's book to the command line. What is given back runs the one that was asked
/// for; nothing where it was another. A program built without the book (no Qt) has none of them.
std::function<std::optional<core::Result<Outcome>>()> addBookVerbs(CLI::App& app);

} // namespace butte::cli
