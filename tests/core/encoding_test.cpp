#include "base/encoding.h"

#include <gtest/gtest.h>

using butte::core::utf8From;

TEST(Encoding, Utf8StaysWhatItIs) {
  EXPECT_EQ(utf8From("Calcium"), "Calcium");
  EXPECT_EQ(utf8From("14 \xC2\xB0"
                     "dH"),
            "14 \xC2\xB0"
            "dH");
  EXPECT_EQ(utf8From("\xEF\xBB\xBF"
                     "Ca"),
            "Ca")
      << "the mark is taken off";
  EXPECT_EQ(utf8From("\xF0\x9F\x8C\xB1"), "\xF0\x9F\x8C\xB1") << "four bytes";
  EXPECT_EQ(utf8From(""), "");
}

TEST(Encoding, BytesThatAreNoUtf8AreWindows1252) {
  EXPECT_EQ(utf8From("H\xE4rte"), "H\xC3\xA4rte");
  EXPECT_EQ(utf8From("5 \x80"), "5 \xE2\x82\xAC") << "the euro sign, which Latin-1 has not";
  EXPECT_EQ(utf8From("\x81"), "\xEF\xBF\xBD") << "not used in that table";
  // An overlong form, a surrogate, and one cut short are no UTF-8 (Unicode 15, table 3-7).
  EXPECT_EQ(utf8From("\xC0\xAF"), "\xC3\x80\xC2\xAF");
  EXPECT_EQ(utf8From("\xED\xA0\x80"), "\xC3\xAD\xC2\xA0\xE2\x82\xAC");
  EXPECT_EQ(utf8From("a\xE2\x82"), "a\xC3\xA2\xE2\x80\x9A");
}

TEST(Encoding, Utf16ByItsMark) {
  using namespace std::string_view_literals;
  EXPECT_EQ(utf8From("\xFF\xFE"
                     "C\0a\0\xB0\0"sv),
            "Ca\xC2\xB0");
  EXPECT_EQ(utf8From("\xFE\xFF\0C\0a"sv), "Ca");
  EXPECT_EQ(utf8From("\xFE\xFF\xD8\x3C\xDF\x31"sv), "\xF0\x9F\x8C\xB1") << "a pair of surrogates";
  EXPECT_EQ(utf8From("\xFE\xFF\xD8\x3C"sv), "\xEF\xBF\xBD") << "half of one";
  EXPECT_EQ(utf8From("\xFF\xFE"
                     "C"sv),
            "")
      << "half a character";
}
