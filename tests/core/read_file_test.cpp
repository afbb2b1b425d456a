// Files and streams that a script or a person names: what is no file, or too large, is refused at once.
#include "base/csv.h"
#include "base/read_file.h"

#include <filesystem>
#include <fstream>
#include <gmock/gmock.h>
#include <sstream>
#include <sys/stat.h>

namespace butte::core {
namespace {

using ::testing::HasSubstr;

class ReadFileTest : public ::testing::Test {
protected:
  void SetUp() override {
    folder = std::filesystem::temp_directory_path() / ("butte-read-" + std::to_string(::getpid()));
    std::filesystem::create_directories(folder);
  }
  void TearDown() override { std::filesystem::remove_all(folder); }
  std::string pathOf(const std::string& name) const { return (folder / name).string(); }
  static std::string refusal(const std::string& path, std::size_t most = 1 << 20) {
    const auto read = readWholeFile(path, most);
    EXPECT_FALSE(static_cast<bool>(read)) << path;
    return read ? "" : read.problem().values.at(0);
  }
  std::filesystem::path folder;
};

TEST_F(ReadFileTest, AWholeFileByteForByte) {
  const std::string text("a\0b\r\n\xff", 6);
  std::ofstream(pathOf("a"), std::ios::binary) << text;
  EXPECT_EQ(*readWholeFile(pathOf("a"), 6), text);
  std::ofstream(pathOf("empty")).flush();
  EXPECT_EQ(*readWholeFile(pathOf("empty"), 6), "");
}

TEST_F(ReadFileTest, WhatIsNoFileIsRefusedAtOnce) {
  EXPECT_THAT(refusal(folder.string()), HasSubstr("is a folder"));
  EXPECT_THAT(refusal("/dev/zero"), HasSubstr("device or a pipe"));
  ASSERT_EQ(::mkfifo(pathOf("pipe").c_str(), 0600), 0);
  EXPECT_THAT(refusal(pathOf("pipe")), HasSubstr("device or a pipe")) << "and nobody writes into it";
  EXPECT_THAT(refusal(pathOf("missing")), HasSubstr("can't be read"));
}

TEST_F(ReadFileTest, WhatIsTooLargeIsNotReadFirst) {
  std::ofstream(pathOf("large"), std::ios::binary).flush();
  std::filesystem::resize_file(pathOf("large"), std::uintmax_t{5} << 30); // a hole: it takes no room
  EXPECT_THAT(refusal(pathOf("large"), 16 << 20), HasSubstr("larger than 16 MB"));
  std::istringstream endless(std::string(3 << 20, 'x'));
  EXPECT_FALSE(static_cast<bool>(readWholeStream(endless, 1 << 20)));
  EXPECT_LT(endless.tellg(), 2 << 20) << "it stopped soon";
  std::istringstream small("abc");
  EXPECT_EQ(*readWholeStream(small, 1 << 20), "abc");
}

TEST(HarmlessText, GoesThroughASpreadsheetAndComesBack) {
  for (const std::string text :
       {"=1+1", "+49 30 1234", "-lime", "@home", "\ttab", "\rreturn", "'=already", "''-x",
        "=cmd|' /C calc'!A0", "'", "''", "plain", "5-10", "", "o'clock", "'quoted'"}) {
    const auto cell = harmlessText(text);
    if (!cell.empty()) {
      EXPECT_EQ(std::string("=+-@\t\r").find(cell[0]), std::string::npos) << text;
    }
    EXPECT_EQ(textAsItWas(cell), text);
    const auto rows = parseCsv("x," + csvCell(cell) + "\r\n");
    ASSERT_EQ(rows.size(), 1u);
    EXPECT_EQ(textAsItWas(rows[0].cells[1]), text) << "quoted and read";
  }
  EXPECT_EQ(harmlessText("plain"), "plain");
}

} // namespace
} // namespace butte::core
