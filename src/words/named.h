#pragma once
#include "language.h"

#include <cstddef>
#include <string>
#include <utility>

namespace butte::words {

/// A code and what it is called in English.
using Named = std::pair<const char*, const char*>;

/// What a code is called, in the language in hand; a code that is not in the list stays as it stands.
template <std::size_t N> std::string named(const Named (&list)[N], const std::string& key) {
  for (const auto& [known, english] : list) {
    if (key == known) return text(english);
  }
  return key;
}

} // namespace butte::words
