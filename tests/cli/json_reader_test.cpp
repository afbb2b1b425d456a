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

/// Entries of a list, text of so many letters: what may be, and one more.
TEST(JsonReader, WhatWouldBeWaitedForIsRefusedWithItsLimit) {
  const auto refused = [](const std::string& key, const Json& value) {
    std::optional<core::Problem> problem;
    const Json object{{key, value}};
    ObjectReader reader(object, "", problem);
    if (value.is_array())
      reader.array(key);
    else
      reader.text(key);
    return problem;
  };
  for (const auto& [key, most] : {std::pair("products", mostProducts), std::pair("shelf", mostProducts),
                                  std::pair("crops", mostCrops)}) {
    Json list = Json::array();
    for (std::size_t i = 0; i < most; ++i)
      list.push_back(1);
    EXPECT_FALSE(refused(key, list)) << key;
    list.push_back(1);
    const auto problem = refused(key, list);
    ASSERT_TRUE(problem) << key;
    EXPECT_EQ(problem->code, ProblemCode::OutsideLimits);
    EXPECT_EQ(problem->where, key);
    EXPECT_EQ(problem->values[2], std::to_string(most));
  }
  EXPECT_FALSE(refused("name", std::string(longestName, 'x')));
  EXPECT_TRUE(refused("name", std::string(longestName + 1, 'x')));
  EXPECT_FALSE(refused("note", std::string(longestName + 1, 'x')));
  EXPECT_TRUE(refused("note", std::string(longestText + 1, 'x')));
}

TEST(JsonReader, NestingHasOneLimit) {
  const auto nested = [](int deep) {
    return "{\"x_\": " + std::string(static_cast<std::size_t>(deep), '[') +
           std::string(static_cast<std::size_t>(deep), ']') + "}";
  };
  EXPECT_TRUE(parseJsonObject(nested(mostNesting - 2)));
  EXPECT_EQ(parseJsonObject(nested(mostNesting + 2)).problem().code, ProblemCode::OutOfRange);
  EXPECT_EQ(parseJsonObject(nested(200000)).problem().code, ProblemCode::OutOfRange);
  EXPECT_TRUE(parsedOrNothing("{\"a\": [1]}").is_object());
  EXPECT_TRUE(parsedOrNothing(nested(100000)).is_discarded());
  EXPECT_TRUE(parsedOrNothing("{\"a\": [1}").is_discarded());
}
