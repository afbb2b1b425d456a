#include "papers.h"

#include <algorithm>
#include <fstream>
#include <sstream>

namespace butte::test {

std::string contentsOf(const std::filesystem::path& path) {
  std::ifstream in(path);
  std::stringstream out;
  out << in.rdbuf();
  return out.str();
}

std::vector<std::filesystem::path> textsIn(const std::string& folder) {
  std::vector<std::filesystem::path> out;
  for (const auto& entry : std::filesystem::directory_iterator(std::string(BUTTE_TEST_DATA) + folder)) {
    if (entry.path().extension() == ".txt") out.push_back(entry.path());
  }
  std::sort(out.begin(), out.end());
  return out;
}

std::map<std::string, double> expectedBeside(std::filesystem::path path) {
  std::map<std::string, double> out;
  std::istringstream lines(contentsOf(path.replace_extension(".expected")));
  for (std::string key, value; lines >> key >> value;)
    out[key] = std::stod(value);
  return out;
}

} // namespace butte::test
