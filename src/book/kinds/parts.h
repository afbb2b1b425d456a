#pragma once
#include "book/record.h"

#include <string>

namespace butte::book {

/// A part of a formula is right when an otherwise empty formula with it is.
Trouble checkPart(const char* key, const Json& part, const std::string& path);

} // namespace butte::book
