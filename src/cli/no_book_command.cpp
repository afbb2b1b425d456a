/// A program without the book knows no verbs over it.
#include "book_command.h"

namespace butte::cli {

std::function<std::optional<core::Result<Outcome>>()> addBookVerbs(CLI::App&) {
  return [] { return std::optional<core::Result<Outcome>>(); };
}

} // namespace butte::cli
