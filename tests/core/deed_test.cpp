#include "base/deed.h"
#include "deed_words.h"
#include "language.h"

#include <gmock/gmock.h>
#include <set>

namespace butte::core {
namespace {

using ::testing::HasSubstr;

TEST(Deed, SurvivesALineOfAFileWhateverStandsInIt) {
  for (const auto& value : {"plain", "", "quote \" and \\", "comma, [brackets]", "ünïcode ✓", "two\nlines"}) {
    const Deed deed{DeedCode::ProductHeld, {value, "22.7", "kg"}};
    const auto back = deedFromLine(deedLine(deed));
    EXPECT_EQ(back.code, deed.code);
    ASSERT_EQ(back.values.size(), 3u);
    if (std::string(value) != "two\nlines") {
      EXPECT_EQ(back.values[0], value);
    }
    EXPECT_EQ(deedLine(deed).find('\n'), std::string::npos) << "one line stays one line";
  }
}

TEST(Deed, ASentenceOfAnOlderVersionStaysAsItWasTold) {
  for (const auto& line : {"potassium sulfate to 22.7 kg", "", "[", "[]", "[\"no such deed\"]", "[1,2]",
                           "[\"product_held\"", "[\"product_held\" \"x\"]"}) {
    const auto deed = deedFromLine(line);
    EXPECT_EQ(deed.code, DeedCode::Told) << line;
    EXPECT_EQ(words::deedText(deed), line);
  }
}

TEST(Deed, KeysAreAllDifferentAndLeadBack) {
  std::set<std::string_view> seen;
  for (int i = 0; i < deedCount; ++i) {
    const auto code = static_cast<DeedCode>(i);
    EXPECT_TRUE(seen.insert(deedKey(code)).second) << deedKey(code);
    EXPECT_EQ(deedFromKey(deedKey(code)), code);
  }
}

TEST(Deed, EveryOneHasASentenceThatUsesItsValues) {
  for (int i = 0; i < deedCount; ++i) {
    const auto code = static_cast<DeedCode>(i);
    const auto text = words::deedText({code, {"0", "1", "2"}});
    EXPECT_FALSE(text.empty()) << deedKey(code);
    EXPECT_EQ(text.find('{'), std::string::npos) << text;
    EXPECT_EQ(words::deedText({code, {}}).find('{'), std::string::npos)
        << "a value that is missing leaves a gap";
  }
}

TEST(Deed, KeysAreToldInWordsAndFiguresInTheLanguageInForce) {
  words::speak({{}, ","});
  EXPECT_EQ(words::deedText({DeedCode::ProductHeld, {"potassium sulfate", "22.7", "kg"}}),
            "potassium sulfate held at 22,7 kg");
  words::speak({});
  EXPECT_EQ(words::deedText({DeedCode::ElementTarget, {"K", "205", "mg/L"}}), "potassium target to 205 mg/L");
  EXPECT_EQ(words::deedText({DeedCode::BatchVolume, {"264", "gal_us"}}), "weights for 264 US gal");
  EXPECT_EQ(words::deedText({DeedCode::DosingFigure, {"drawn/0/volume", "12", "L"}}),
            "drawn from tank 1 to 12 L");
  EXPECT_EQ(words::deedText({DeedCode::DosingAsUsual, {"feed_per_day"}}), "feed used per day: the usual");
  EXPECT_EQ(words::deedText({DeedCode::AcidAim, {"5.8"}}), "aim of the acid to pH 5.8");
}

TEST(Language, ATranslationWithOtherPlacesCountsAsNone) {
  words::speak({[](std::string_view) { return std::string("{} {} {} {}"); }, "."});
  EXPECT_EQ(words::said("{} of {}", 1, 2), "1 of 2");
  words::speak({[](std::string_view) { return std::string("zwei: {1}, eins: {0}"); }, "."});
  EXPECT_EQ(words::said("{} of {}", 1, 2), "zwei: 2, eins: 1") << "the order may be another";
  words::speak({});
}

} // namespace
} // namespace butte::core
