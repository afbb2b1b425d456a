#pragma once
#include <string>
#include <string_view>

namespace butte::core {

/// Text of unknown encoding as UTF-8 without a mark: UTF-8 and UTF-16 by their byte order marks; else UTF-8
/// if it is that throughout; else Windows-1252, which spreadsheets of the West wrote before. Never fails:
/// what can't be a character becomes U+FFFD.
std::string utf8From(std::string_view bytes);

} // namespace butte::core
