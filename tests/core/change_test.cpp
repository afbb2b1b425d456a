#include "base/change.h"
#include "base/deed.h"
#include "base/quoted_list.h"

#include <gmock/gmock.h>
#include <set>

using namespace butte::core;

TEST(QuotedList, SurvivesEveryCharacterOfAName) {
  const std::vector<std::string> values{"Côte \"spring\"", "back\\slash", "", "[a,b]", "comma, blank"};
  const auto line = quotedList("key", values);
  EXPECT_EQ(line.find('\n'), std::string::npos);
  auto texts = textsOfQuotedList(line);
  ASSERT_TRUE(texts);
  EXPECT_EQ(texts->front(), "key");
  texts->erase(texts->begin());
  EXPECT_EQ(*texts, values);
  EXPECT_EQ(quotedList("k", {"two\nlines"}), "[\"k\",\"two lines\"]") << "a line break would end it";
}

TEST(QuotedList, RefusesWhatIsNone) {
  for (const auto* line : {"", "[", "]", "[]x", "a sentence", "[\"open]", "[\"a\" \"b\"]", "[a]", "{\"a\"}"})
    EXPECT_FALSE(textsOfQuotedList(line) && !textsOfQuotedList(line)->empty()) << line;
}

TEST(Change, LinesComeBackAndOlderSentencesStay) {
  const std::vector<Change> changes{
      {ChangeCode::FirstVersion, {}},
      {ChangeCode::Renamed, {"a \"b\"", "c"}},
      {ChangeCode::RowChanged, {"target", "", "K", "205", "mg/L", "225", "mg/L"}}};
  EXPECT_EQ(changesFromLines(changeLines(changes)), changes);
  EXPECT_TRUE(changesFromLines("").empty());
  const auto old = changesFromLines("K 205 to 225 mg/L; and 3 more");
  ASSERT_EQ(old.size(), 1u);
  EXPECT_EQ(old[0].code, ChangeCode::Told);
  const auto unknown = changesFromLines("[\"of_a_later_program\",\"x\"]");
  EXPECT_EQ(unknown[0].code, ChangeCode::Told) << "kept as it stands";
}

TEST(Change, KeysAreTheirOwn) {
  std::set<std::string_view> keys;
  for (int code = 0; code < changeCount; ++code)
    EXPECT_TRUE(keys.insert(changeKey(static_cast<ChangeCode>(code))).second);
}
