#include "book_fixture.h"

#include "book/changes/comparison.h"
#include "change_words.h"
#include "language.h"

namespace butte::book {

using ::testing::Contains;
using ::testing::HasSubstr;
using ::testing::IsEmpty;
using ::testing::Not;

/// The changes as a trail tells them.
std::vector<std::string> linesBetween(Kind kind, const Json& before, const Json& after) {
  std::vector<std::string> out;
  for (const auto& change : changesBetween(kind, before, after))
    out.push_back(words::changeText(change));
  return out;
}

/// Potassium sulfate held at so many kg in 1000 L of pure water.
Json held(const std::string& kilograms) {
  auto formula = exchange::emptyFormula();
  formula["shelf"] = Json::array(
      {{{"id", "sop"}, {"catalogue", "sop"}, {"on", true}, {"held", exchange::amountJson(kilograms, "kg")}}});
  return formula;
}

TEST(FormulaChanges, SayWhatAWeightDoes) {
  // Potassium sulfate carries 44.9 % K by its formula; the shipped one is 50 % K2O = 41.5 % (common
  // practice), and 400 g more in 1000 L are then 0.4 * 0.415..0.445 g/L.
  const auto lines = linesBetween(Kind::Formula, held("22.3"), held("22.7"));
  ASSERT_THAT(lines, Not(IsEmpty()));
  EXPECT_THAT(lines[0], HasSubstr("22.3 to 22.7 kg: K +1")); // 166 to 178 mg/L
  EXPECT_THAT(lines[0], HasSubstr("S +"));
}

TEST(FormulaChanges, NothingChangedSaysSo) {
  EXPECT_THAT(linesBetween(Kind::Formula, demoFormula(), demoFormula()), IsEmpty());
  EXPECT_EQ(words::changesText(changesBetween(Kind::Formula, demoFormula(), demoFormula())),
            "nothing that changes the feed");
}

TEST(FormulaChanges, ATargetAndItsConsequences) {
  auto after = demoFormula();
  after["target"]["rows"][3]["mg_per_l"] = "225";
  const auto lines = linesBetween(Kind::Formula, demoFormula(), after);
  EXPECT_THAT(lines, Contains("target K 205 to 225 mg/L"));
  EXPECT_THAT(lines, Contains(HasSubstr("potassium"))) << "some salt must bring it";
  EXPECT_THAT(lines, Contains(HasSubstr("EC ")));
  EXPECT_THAT(words::changesText(changesBetween(Kind::Formula, demoFormula(), after)), HasSubstr(" more"));
}

TEST(FormulaChanges, AProductLeftOutIsNamed) {
  auto after = demoFormula();
  for (auto& product : after["shelf"]) {
    if (product["id"] == "sop") product["on"] = false;
  }
  EXPECT_THAT(linesBetween(Kind::Formula, demoFormula(), after), Contains(HasSubstr("left out (was")));
}

TEST(FormulaChanges, ABiggerBatchIsNotAnotherRecipe) {
  auto after = demoFormula();
  after["batch"]["amount"] = "2000";
  EXPECT_THAT(linesBetween(Kind::Formula, demoFormula(), after),
              ::testing::ElementsAre("batch 1000 to 2000 L"));
}

TEST(FormulaChanges, AWaterReportIsNamedByItsDate) {
  auto after = smallWater();
  after["reports"][0]["water"]["rows"][0]["mg_per_l"] = "70";
  EXPECT_THAT(linesBetween(Kind::Water, smallWater(), after),
              ::testing::ElementsAre("2026-03-02 Ca 62 to 70 mg/L"));
  after["reports"].push_back(after["reports"][0]);
  after["reports"][1]["date"] = "2026-09-01";
  EXPECT_THAT(linesBetween(Kind::Water, smallWater(), after), Contains("report of 2026-09-01 added"));
}

TEST(FormulaChanges, AreKeptAsCodesAndComeBackTheSame) {
  auto after = demoFormula();
  after["target"]["rows"][3]["mg_per_l"] = "225";
  after["name"] = "Salad, \"late\"";
  const auto changes = changesBetween(Kind::Formula, demoFormula(), after);
  const auto lines = core::changeLines(changes);
  EXPECT_EQ(core::changesFromLines(lines), changes) << lines;
  EXPECT_THAT(lines, HasSubstr("[\"row_changed\",\"target\",\"\",\"K\",\"205\",\"mg/L\",\"225\",\"mg/L\"]"));
  const auto told = core::changesFromLines("K 205 to 225 mg/L; and 3 more");
  EXPECT_EQ(words::changesText(told), "K 205 to 225 mg/L; and 3 more") << "as an older version told it";
}

TEST(FormulaChanges, TheDecimalMarkIsTheReaders) {
  words::speak({{}, ","});
  EXPECT_THAT(linesBetween(Kind::Formula, held("22.3"), held("22.7"))[0], HasSubstr("22,3 to 22,7 kg"));
  words::speak({});
}

TEST(FormulaChanges, ComparisonShowsBothSides) {
  auto after = demoFormula();
  after["target"]["rows"][3]["mg_per_l"] = "225";
  const auto compared = compareFormulas(demoFormula(), after);
  bool seen = false;
  for (const auto& row : compared.elements) {
    if (row.name != "K") continue;
    seen = true;
    EXPECT_LT(*row.left + 5, *row.right);
  }
  EXPECT_TRUE(seen);
  EXPECT_LT(*compared.leftEc, *compared.rightEc);
}

} // namespace butte::book
