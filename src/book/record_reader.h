#pragma once
#include "moment.h"

#include <string>
#include <string_view>

namespace butte::exchange {
class ObjectReader;
}

/// What the readers of several kinds of records ask for alike.
namespace butte::book {

/// A time that has to be there. Problem at its key: OutOfRange.
Moment momentIn(exchange::ObjectReader& reader, std::string_view key);
/// A text that must not be empty. Problem at its key: MissingKey, with what it is.
std::string neededText(exchange::ObjectReader& reader, std::string_view key, const char* what);

} // namespace butte::book
