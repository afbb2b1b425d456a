// A pattern for a scale that writes in its own way.
#include "scale/scale_pattern.h"

#include <gtest/gtest.h>

namespace butte::devices {
namespace {

using core::ProblemCode;

ScaleReading readBy(std::string_view pattern, std::string_view line) {
  const auto parsed = ScalePattern::parse(pattern);
  EXPECT_TRUE(static_cast<bool>(parsed)) << pattern;
  return parsed ? parsed->read(line) : ScaleReading{};
}

TEST(ScalePattern, ReadsWhatItSays) {
  const auto a = readBy("W#{any};{stable:OK|..};{weight}{unit}", "W#0012;OK;  -12.5kg");
  EXPECT_EQ(a.status, ScaleStatus::Weight);
  EXPECT_DOUBLE_EQ(a.mass->grams(), -12500);
  EXPECT_EQ(a.stable, true);
  const auto b = readBy("W#{any};{stable:OK|..};{weight}{unit}", "W#0013;..;12.5kg");
  EXPECT_EQ(b.stable, false);
  const auto c = readBy("{weight:kg} {stable:|*}", "  1,250 *\r\n");
  EXPECT_DOUBLE_EQ(c.mass->grams(), 1250) << "whose pattern it is has seen what it makes of a comma";
  EXPECT_EQ(c.stable, false);
  EXPECT_EQ(readBy("{weight:kg} {stable:|*}", "1.250").stable, true);
  EXPECT_FALSE(readBy("{weight:g}", "12.5").stable) << "it does not say";
}

TEST(ScalePattern, ALineThatDoesNotFitWhollyIsNothing) {
  for (const auto* line : {"", "12.5", "12.5 kg more", "x 12.5 kg", "12.5 stone", "1.2.3 kg"})
    EXPECT_EQ(readBy("{weight} {unit}", line).status, ScaleStatus::Nothing) << line;
}

TEST(ScalePattern, RefusesWhatCanNotBeOne) {
  const std::pair<const char*, ProblemCode> bad[] = {{"", ProblemCode::MissingKey},
                                                     {"{unit}", ProblemCode::MissingKey},
                                                     {"{weight}", ProblemCode::MissingKey},
                                                     {"{weight:kg}{unit}", ProblemCode::MissingKey},
                                                     {"{weight:kg}{weight:kg}", ProblemCode::MissingKey},
                                                     {"{weight:stone}", ProblemCode::NotOneOf},
                                                     {"{stable:A}{weight:g}", ProblemCode::NotOneOf},
                                                     {"{stable:A|A}{weight:g}", ProblemCode::NotOneOf},
                                                     {"{colour}", ProblemCode::NotOneOf},
                                                     {"{weight", ProblemCode::BadFile}};
  for (const auto& [text, code] : bad) {
    const auto parsed = ScalePattern::parse(text);
    ASSERT_FALSE(static_cast<bool>(parsed)) << text;
    EXPECT_EQ(parsed.problem().code, code) << text;
    EXPECT_EQ(parsed.problem().where, "pattern");
  }
  EXPECT_FALSE(static_cast<bool>(ScalePattern::parse(std::string(500, 'x'))));
}

} // namespace
} // namespace butte::devices
