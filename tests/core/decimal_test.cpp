#include "base/decimal.h"

#include <gtest/gtest.h>

using namespace butte::core;

TEST(Decimal, PointAndCommaAreBothRead) {
  EXPECT_EQ(parseDecimal("12.5"), 12.5);
  EXPECT_EQ(parseDecimal(" 12,5 "), 12.5);
  EXPECT_EQ(parseDecimal("-3"), -3.0);
  EXPECT_EQ(parseDecimal("+3"), 3.0);
  EXPECT_EQ(parseDecimal("1e3"), 1000.0);
}

TEST(Decimal, WhatIsNotOneNumberIsRefused) {
  for (const char* text :
       {"", " ", "abc", "1,234.5", "1,234,567", "1.2.3", "12g", "inf", "nan", "0x10", "--1", "1e999"})
    EXPECT_FALSE(parseDecimal(text)) << text;
  EXPECT_FALSE(parseDecimal(std::string(400, '9')));
  EXPECT_TRUE(parseDecimal(std::string(200, '9'))); // a number, though absurd: the range check refuses it
}

TEST(Decimal, DigitsAreKeptAsTyped) {
  EXPECT_EQ(normalisedDecimal(" 12,50 "), "12.50");
  EXPECT_EQ(decimalText(0.1), "0.1");
  EXPECT_EQ(*parseDecimal(decimalText(1.0 / 3)), 1.0 / 3);
}
