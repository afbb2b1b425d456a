#include "words.h"

#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;

TEST(Words, EveryProblemNamesThePlaceOnOneLine) {
  for (int code = 0; code <= static_cast<int>(ProblemCode::BookConflict); ++code) {
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

TEST(Words, SolidsAndTheirPaceAreSaidInAGrowersWords) {
  for (const auto& solid : EquilibriumData::instance().solids())
    EXPECT_NE(words::solidName(solid.name), solid.name) << solid.name << " has no name for people";
  EXPECT_EQ(words::solidName("potassium sulfate"), "potassium sulfate");
  EXPECT_EQ(words::kineticsText(FormsWithin::Minutes, 1.2), "within minutes");
  EXPECT_EQ(words::kineticsText(FormsWithin::Minutes, 0.2), "over hours"); // only just over-saturated
  EXPECT_EQ(words::kineticsText(FormsWithin::Months, 3), "over months, if at all");
}

TEST(Words, EveryChemistryProblemIsAnAnswerNotACode) {
  for (const auto code : {ProblemCode::NoEquilibrium, ProblemCode::CannotReach, ProblemCode::TooFewReadings,
                          ProblemCode::NotDeterminable})
    EXPECT_NE(words::problemText(problemAt(code, "x", {"5"})), "unknown problem");
}
