#pragma once
#include <filesystem>
#include <map>
#include <string>
#include <vector>

/// Papers kept as files, each with what it says beside it.
namespace butte::test {

std::string contentsOf(const std::filesystem::path& path);
/// The .txt files of a folder of the tests, by name.
std::vector<std::filesystem::path> textsIn(const std::string& folder);
/// The lines "KEY VALUE" of the .expected file beside.
std::map<std::string, double> expectedBeside(std::filesystem::path path);

} // namespace butte::test
