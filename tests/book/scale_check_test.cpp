// A known weight on a scale, in the book. Grams of a pound: the international one (1959).
#include "book/scale_check.h"

#include "book_fixture.h"
#include "support/told.h"

namespace butte::book {
namespace {

class ScaleCheckTest : public BookTest {};

Json check() {
  return Json::parse(R"({"at": "2026-03-02T07:15:00Z", "scale": "15 kg scale",
    "known": {"amount": "2", "unit": "lb"}, "shown": {"amount": "910", "unit": "g"}, "who": "K.T."})");
}

TEST_F(ScaleCheckTest, IsReadWrittenBackTheSameAndReckoned) {
  const auto read = scaleCheckFromJson(check());
  ASSERT_TRUE(static_cast<bool>(read)) << read.problem().where;
  EXPECT_NEAR(read->knownMass().grams(), 907.18474, 1e-9);
  EXPECT_NEAR(read->error().grams(), 910 - 907.18474, 1e-9);
  EXPECT_NEAR(read->errorPercent(), 0.31033, 1e-4);
  EXPECT_EQ(toJson(*read), check());
}

TEST_F(ScaleCheckTest, WhatCanNotBeIsRefusedByItsPlace) {
  const auto refused = [](const char* key, const Json& value) {
    auto body = check();
    body[key] = value;
    const auto problem = checkRecord(Kind::ScaleCheck, body);
    ASSERT_TRUE(problem) << key;
    EXPECT_THAT(problem->where, ::testing::HasSubstr(key));
  };
  EXPECT_FALSE(checkRecord(Kind::ScaleCheck, check()));
  refused("at", "yesterday");
  refused("scale", "");
  refused("known", Json::parse(R"({"amount": "0", "unit": "g"})"));
  refused("known", Json());
  refused("shown", Json::parse(R"({"amount": "-1", "unit": "g"})"));
  refused("shown", Json::parse(R"({"amount": "1", "unit": "L"})"));
  refused("pony", 1);
}

} // namespace
} // namespace butte::book
