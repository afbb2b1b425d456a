#include "words.h"

#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;

TEST(Words, EveryProblemNamesThePlaceOnOneLine) {
  for (int code = 0; code <= static_cast<int>(ProblemCode::NewerFormat); ++code) {
    const auto line =
        words::problemLine(problemAt(static_cast<ProblemCode>(code), "a.key", {"x\ny", "2", "z", "w"}));
    EXPECT_THAT(line, ::testing::StartsWith("a.key: "));
    EXPECT_EQ(line.find('\n'), std::string::npos);
    EXPECT_THAT(line, ::testing::Not(::testing::HasSubstr("unknown problem")));
  }
}

TEST(Words, AnEndlessNumberIsNotEchoedInFull) {
  const auto line = words::problemLine(problemAt(ProblemCode::NotANumber, "x", {std::string(500, '9')}));
  EXPECT_LT(line.size(), 150u);
}

TEST(Words, FiguresCarryAsManyDigitsAsMeanSomething) {
  EXPECT_EQ(words::figure(147.4), "147");
  EXPECT_EQ(words::figure(12.34), "12.3");
  EXPECT_EQ(words::figure(0.0512), "0.0512");
  EXPECT_EQ(words::figure(0), "0");
}
