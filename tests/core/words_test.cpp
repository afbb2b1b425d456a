#include "change_words.h"
#include "language.h"
#include "table_words.h"
#include "words.h"

#include <gmock/gmock.h>
#include <set>

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

TEST(Words, AProblemsLineCarriesNothingThatATerminalObeys) {
  const auto line = [](const std::string& name) {
    return words::problemLine(problemAt(ProblemCode::UnknownProduct, "shelf[0]", {name}));
  };
  EXPECT_THAT(line("a\x1b[2Jb"), ::testing::HasSubstr("a?[2Jb"));
  EXPECT_THAT(line("bell\x07"), ::testing::HasSubstr("bell?"));
  EXPECT_THAT(line("c1\xc2\x9b"), ::testing::HasSubstr("c1?"));
  EXPECT_THAT(line("cut\xe2\x82"), ::testing::HasSubstr("cut??")) << "no UTF-8";
  EXPECT_THAT(line("two\nlines\tand tab"), ::testing::HasSubstr("two lines and tab"));
  EXPECT_THAT(line("Dünger für 2 €"), ::testing::HasSubstr("Dünger für 2 €")) << "what is text stays";
}

TEST(Words, EveryReasonIsAWholeSentenceOfItsOwn) {
  std::set<std::string> told;
  for (int kind = 0; kind <= static_cast<int>(ReasonKind::AlkalinityConflict); ++kind) {
    for (const bool over : {false, true}) {
      Reason reason;
      reason.kind = static_cast<ReasonKind>(kind);
      reason.nutrient = Nutrient::K;
      reason.over = over;
      reason.products = {"kno3", "mkp"};
      const auto text = words::reasonText(reason);
      EXPECT_GT(text.size(), 20u) << kind;
      EXPECT_THAT(text, ::testing::EndsWith(".")) << text;
      EXPECT_EQ(text.find("  "), std::string::npos) << text;
      EXPECT_EQ(text.find('{'), std::string::npos) << text;
      told.insert(text);
    }
  }
  EXPECT_GE(told.size(), static_cast<std::size_t>(ReasonKind::AlkalinityConflict) + 1)
      << "two kinds read alike";
}

TEST(Words, EveryLimitThatHoldsAnElementIsNamed) {
  for (int kind = 0; kind <= static_cast<int>(LimitKind::ChelateInstead); ++kind) {
    for (const bool over : {false, true}) {
      for (const std::size_t carriers : {0u, 1u, 2u}) {
        Reason reason;
        reason.kind = ReasonKind::ComesWith;
        reason.nutrient = Nutrient::K;
        reason.over = over;
        BindingLimit limit;
        limit.kind = static_cast<LimitKind>(kind);
        limit.nutrient = Nutrient::S;
        limit.product = "sop";
        limit.carriers = std::vector<std::string>(carriers, "sop");
        reason.limits = {limit};
        const auto text = words::reasonText(reason);
        EXPECT_THAT(text, ::testing::HasSubstr(over ? "it can't fall further: " : "it can't rise further: "));
        EXPECT_EQ(text.find('{'), std::string::npos) << text;
        EXPECT_THAT(text, ::testing::EndsWith(".")) << text;
      }
    }
  }
}

TEST(Words, EveryStockNoticeNamesItsTank) {
  std::set<std::string_view> codes;
  for (int kind = 0; kind <= static_cast<int>(StockWarning::WaterFallsOut); ++kind) {
    StockNotice notice;
    notice.kind = static_cast<StockWarning>(kind);
    notice.tank = "B";
    notice.product = "gypsum";
    notice.gramsPerLitre = 1.234;
    const auto text = words::stockNoticeText(notice);
    EXPECT_GT(text.size(), 20u) << kind;
    if (notice.kind != StockWarning::NotPlaced) {
      EXPECT_THAT(text, ::testing::HasSubstr("tank B")) << text;
    }
    EXPECT_TRUE(codes.insert(words::code(notice.kind)).second) << "one code for two warnings: " << text;
  }
}

TEST(Words, EveryRowSayingFillsItsPlaces) {
  for (int code = 0; code < words::rowCodeCount; ++code) {
    const auto text =
        words::rowText({static_cast<words::RowCode>(code), {"first", "second", "third", "fourth"}});
    EXPECT_FALSE(text.empty());
    EXPECT_EQ(text.find('{'), std::string::npos) << text;
  }
}

TEST(Words, EveryChangeReadsAndCountsRight) {
  for (int code = 1; code < changeCount; ++code) {
    const Change change{static_cast<ChangeCode>(code), {"water_ph", "Bore", "7.4", "", "7.6", "", ""}};
    const auto text = words::changeText(change);
    EXPECT_GT(text.size(), 5u) << code;
    EXPECT_EQ(text.find('{'), std::string::npos) << text;
  }
  EXPECT_EQ(words::changeText({ChangeCode::ReportsTakenOut, {"1"}}), "1 report taken out");
  EXPECT_EQ(words::changeText({ChangeCode::ReportsTakenOut, {"3"}}), "3 reports taken out");
  EXPECT_EQ(words::changeText({ChangeCode::Figure, {"coldest", "", "8", "C", "12", "C"}}),
            "coldest night 8 to 12 °C");
  EXPECT_EQ(words::changeText({ChangeCode::Figure, {"batch", "", "", "", "200", "L"}}),
            "batch none to 200 L");
  EXPECT_EQ(words::changesText({}), "nothing that changes the feed");
}

TEST(Words, ALanguageChangesSentencesAndTheDecimalMark) {
  words::speak({[](std::string_view english) {
                  return english == "{} reports taken out" ? std::string("{} Berichte weg")
                                                           : std::string(english);
                },
                ","});
  EXPECT_EQ(words::changeText({ChangeCode::ReportsTakenOut, {"3"}}), "3 Berichte weg");
  EXPECT_EQ(words::figure(12.34), "12,3");
  EXPECT_EQ(words::digits(12.34), "12.3") << "fields and files keep the point";
  EXPECT_EQ(words::digits(0.0000624), "0.000062") << "no hand reads 6.2e-05";
  EXPECT_EQ(words::digits(-0.00053), "-0.00053");
  EXPECT_EQ(words::digits(20547), "20550") << "four that count";
  EXPECT_EQ(words::digits(999960), "1000000");
  words::speak({[](std::string_view) { return std::string("broken {} {} {}"); }, "."});
  EXPECT_EQ(words::changeText({ChangeCode::TankAdded, {"C"}}), "tank C added")
      << "a translation that does not fit counts as none";
  words::speak({});
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
