#pragma once
#include <optional>
#include <string>
#include <string_view>
#include <vector>

/// What was done or changed as one line of a file: a JSON list of a key and its values.
namespace butte::core {

/// ["product_held","potassium sulfate","22.7","kg"]
std::string quotedList(std::string_view key, const std::vector<std::string>& values);

/// The texts of such a list; nothing where the line is none.
std::optional<std::vector<std::string>> textsOfQuotedList(std::string_view line);

} // namespace butte::core
