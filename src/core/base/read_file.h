#pragma once
#include "base/result.h"

#include <cstddef>
#include <iosfwd>
#include <string>

namespace butte::core {

/// The whole of a regular file. BadFile at once, without reading, for what is none (a folder, a device, a
/// pipe: they may never end) and for what is larger than `mostBytes`.
Result<std::string> readWholeFile(const std::string& path, std::size_t mostBytes);

/// The whole of a stream, up to `mostBytes`; BadFile beyond.
Result<std::string> readWholeStream(std::istream& in, std::size_t mostBytes);

} // namespace butte::core
