#pragma once
#include <cstdlib>
#include <fstream>
#include <gtest/gtest.h>
#include <iterator>
#include <string>

namespace butte::test {

/// Holds a text against tests/cases/goldens/NAME.txt: a change of what people read is seen and decided on.
/// BUTTE_WRITE_GOLDENS=1 writes the files anew.
inline void expectAsKept(const std::string& name, const std::string& text) {
  const auto path = std::string(BUTTE_TEST_DATA) + "/cases/goldens/" + name + ".txt";
  if (std::getenv("BUTTE_WRITE_GOLDENS")) {
    std::ofstream(path, std::ios::binary) << text;
    return;
  }
  std::ifstream file(path, std::ios::binary);
  const std::string kept{std::istreambuf_iterator<char>(file), {}};
  EXPECT_EQ(text, kept) << name;
}

} // namespace butte::test
