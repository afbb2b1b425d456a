#include "memory/row_answers.h"

#include <gmock/gmock.h>

namespace butte::reading {
namespace {

using ::testing::IsEmpty;

constexpr auto thisYear =
    "Parameter\tWell 1\tWell 2\tUnit\nCalcium\t78\t91\tmg/l\nSodium\t14\t15\tmg/l\nGlow\t3\t4\tmg/l\n";
constexpr auto nextYear =
    "Parameter\tWell 1\tWell 2\tUnit\nCalcium\t70\t95\tmg/l\nSodium\t13\t16\tmg/l\nGlow\t2\t1\tmg/l\n";

RowsAnswered allOpen(const ReportText& read) {
  return {std::vector<std::optional<core::ReportRow>>(read.unplaced.size()),
          std::vector<bool>(read.unplaced.size())};
}

TEST(RowAnswers, OfOnePaperAnswerTheNextButNeverWithItsFigures) {
  const auto first = readReportText(thisYear), next = readReportText(nextYear);
  ASSERT_EQ(first.unplaced.size(), 3u);
  auto said = allOpen(first);
  said.rows[0] = first.unplaced[0].couldBe.at(1);
  said.said[0] = true;
  said.said[2] = true; // left out
  const auto kept = answersToKeep(first, said);
  ASSERT_EQ(kept.size(), 2u);
  const auto known = recalled(next, kept);
  ASSERT_TRUE(known.rows[0]);
  EXPECT_DOUBLE_EQ(known.rows[0]->value, 95);
  EXPECT_FALSE(known.said[1]) << "was not answered then";
  EXPECT_TRUE(known.said[2]);
  EXPECT_FALSE(known.rows[2]);
}

TEST(RowAnswers, ALineThatAsksSomethingElseStaysOpen) {
  const auto first = readReportText(thisYear);
  auto said = allOpen(first);
  said.rows[0] = first.unplaced[0].couldBe.at(1);
  said.said[0] = true;
  const auto kept = answersToKeep(first, said);
  const auto three = readReportText(
      "Parameter\tWell 1\tWell 2\tWell 3\tUnit\nCalcium\t1\t2\t3\tmg/l\nSodium\t1\t2\t3\tmg/l\n");
  for (const bool answered : recalled(three, kept).said)
    EXPECT_FALSE(answered) << "of three wells another may be meant";
}

TEST(RowAnswers, ATypedFigureIsOfItsPaperAlone) {
  const auto read = readReportText("Calcium\t1,250\tmg/l\nSodium\t20\tmg/l\n");
  ASSERT_EQ(read.unplaced.size(), 1u);
  auto said = allOpen(read);
  said.rows[0] = core::ReportRow{"Ca", 125, "mg/L", false};
  said.said[0] = true;
  EXPECT_THAT(answersToKeep(read, said), IsEmpty());
}

TEST(RowAnswers, APlaceGivenByHandIsKeptByItsKey) {
  const auto read = readReportText("Hydrocarb.\t248\tmg/l\nCalcium\t80\tmg/l\n");
  ASSERT_EQ(read.unplaced.size(), 1u);
  auto said = allOpen(read);
  said.rows[0] = placedAs(read.unplaced[0], "HCO3");
  said.said[0] = true;
  const auto next = readReportText("Hydrocarb.\t<250\tmg/l\nCalcium\t81\tmg/l\n");
  const auto known = recalled(next, answersToKeep(read, said));
  ASSERT_TRUE(known.rows[0]);
  EXPECT_EQ(*known.rows[0], (core::ReportRow{"HCO3", 250, "mg/L", true}));
}

TEST(RowAnswers, LayoutsAreAlikeByTheirNames) {
  const auto one = layoutNames(readReportText(thisYear)), other = layoutNames(readReportText(nextYear));
  EXPECT_DOUBLE_EQ(likeness(one, other), 1);
  EXPECT_LT(likeness(one, layoutNames(readReportText("Nitrate\t12\tmg/l\nCalcium\t3\tmg/l\n"))), sameLayout);
  EXPECT_EQ(likeness({}, one), 0);
}

TEST(RowAnswers, WhysHaveKeysForGood) {
  for (int i = 0; i <= static_cast<int>(WhyUnplaced::Blurred); ++i) {
    const auto why = static_cast<WhyUnplaced>(i);
    EXPECT_EQ(whyFromKey(whyKey(why)), why);
  }
  EXPECT_EQ(whyFromKey("mood"), std::nullopt);
}

} // namespace
} // namespace butte::reading
