#include "json_reader.h"

#include <gtest/gtest.h>

using namespace butte;
using namespace butte::exchange;
using core::ProblemCode;

TEST(JsonReader, KeysKeepTheirOrder) {
  const auto json = parseJsonObject(R"({"z": 1, "a": 2})");
  ASSERT_TRUE(json);
  EXPECT_EQ(json->begin().key(), "z");
}

TEST(JsonReader, AKeyTwiceInOneObjectIsAnErrorButNotInTwoObjects) {
  EXPECT_EQ(parseJsonObject(R"({"a": 1, "a": 2})").problem().code, ProblemCode::DuplicateKey);
  EXPECT_EQ(parseJsonObject(R"({"o": {"a": 1, "b": 1, "a": 2}})").problem().where, "a");
  EXPECT_TRUE(parseJsonObject(R"({"l": [{"a": 1}, {"a": 2}], "o": {"a": 3}, "p": {"a": 4}})"));
}

TEST(JsonReader, TheFirstProblemSticksAndNamesItsPath) {
  const auto json = parseJsonObject(R"({"a": "text", "b": 3, "c": true})");
  std::optional<core::Problem> problem;
  ObjectReader reader(*json, "top", problem);
  EXPECT_FALSE(reader.number("a"));
  EXPECT_FALSE(reader.text("b"));
  reader.flag("c");
  reader.finish();
  ASSERT_TRUE(problem);
  EXPECT_EQ(problem->code, ProblemCode::WrongType);
  EXPECT_EQ(problem->where, "top.a");
}

TEST(JsonReader, WhatNobodyAskedForIsUnknown) {
  const auto json = parseJsonObject(R"({"a": 1, "x_mine": 2, "typo": 3})");
  std::optional<core::Problem> problem;
  ObjectReader reader(*json, "", problem);
  EXPECT_EQ(reader.number("a"), 1.0);
  reader.finish();
  ASSERT_TRUE(problem);
  EXPECT_EQ(problem->where, "typo");
}

TEST(JsonReader, SomethingElseThanAnObjectIsSaid) {
  const Json list = Json::array();
  std::optional<core::Problem> problem;
  ObjectReader reader(list, "water", problem);
  EXPECT_FALSE(reader.has("a"));
  EXPECT_FALSE(reader.number("a"));
  reader.finish();
  EXPECT_EQ(problem->where, "water");
}
