#pragma once
#include <fstream>
#include <gtest/gtest.h>
#include <sstream>
#include <string>
#include <vector>

/// Expected answers in text: one case a line, cells between '|', '#' for comments. A chemist can add one.
namespace butte::test {

inline std::vector<std::vector<std::string>> readTextTable(const std::string& name) {
  std::ifstream file(std::string(BUTTE_TEST_DATA) + "/cases/" + name);
  EXPECT_TRUE(file) << name;
  std::vector<std::vector<std::string>> rows;
  for (std::string line; std::getline(file, line);) {
    if (line.empty() || line[0] == '#') continue;
    std::vector<std::string> cells;
    std::istringstream stream(line);
    for (std::string cell; std::getline(stream, cell, '|');) {
      const auto first = cell.find_first_not_of(' '), last = cell.find_last_not_of(' ');
      cells.push_back(first == std::string::npos ? "" : cell.substr(first, last - first + 1));
    }
    rows.push_back(cells);
  }
  EXPECT_FALSE(rows.empty()) << name;
  return rows;
}

} // namespace butte::test
