#include "edit.h"
#include "formula_json.h"
#include "words.h"

#include <fstream>
#include <gmock/gmock.h>

using namespace butte;
using namespace butte::exchange;

namespace {

std::string demoText() {
  std::ifstream file(std::string(BUTTE_TEST_DATA) + "/../src/app/resources/demo/ormsey.json");
  return {std::istreambuf_iterator<char>(file), {}};
}

core::Problem problemWith(const std::string& pointer, const Json& value) {
  auto json = *parseFormulaText(demoText());
  json[Json::json_pointer(pointer)] = value;
  const auto read = parseFormulaText(formulaText(json));
  EXPECT_FALSE(read) << pointer;
  return read ? core::Problem{} : read.problem();
}

} // namespace

TEST(FormulaDocument, ReadsAndWritesBackTheSame) {
  const auto json = parseFormulaText(demoText());
  ASSERT_TRUE(json);
  const auto again = parseFormulaText(formulaText(*json));
  ASSERT_TRUE(again);
  EXPECT_EQ(*json, *again);
  EXPECT_TRUE(parseFormulaText(formulaText(emptyFormula())));
}

TEST(FormulaDocument, TheDemoSolvesWithOneHonestConflict) {
  const auto document = readFormulaDocument(*parseFormulaText(demoText()));
  ASSERT_TRUE(document);
  const auto answer = core::compute(document->given);
  ASSERT_TRUE(answer);
  EXPECT_TRUE(answer->checked);
  EXPECT_EQ(answer->solution.reasons.size(), 2u); // calcium and ammonium come only together
  EXPECT_NEAR(answer->feed.ions.cationsMeqPerL(), answer->feed.ions.anionsMeqPerL(), 0.1);
}

TEST(FormulaDocument, EveryFaultNamesItsPlace) {
  EXPECT_EQ(problemWith("/format", "other").where, "format");
  EXPECT_EQ(problemWith("/version", formulaFormatVersion + 1).code, core::ProblemCode::NewerFormat);
  EXPECT_EQ(problemWith("/water/rows/0/mg_per_l", "-3").where, "water.rows[0].mg_per_l");
  EXPECT_EQ(problemWith("/water/rows/0/mg_per_l", 3).code, core::ProblemCode::WrongType);
  EXPECT_EQ(problemWith("/target/rows/0/nutrient", "Xx").where, "target.rows[0].nutrient");
  EXPECT_EQ(problemWith("/target/rows/1/nutrient", "N_NO3").code, core::ProblemCode::DuplicateKey);
  EXPECT_EQ(problemWith("/shelf/0/catalogue", "nothing").where, "shelf[0].catalogue");
  EXPECT_EQ(problemWith("/shelf/0/held", Json{{"amount", "5"}, {"unit", "furlong"}}).where,
            "shelf[0].held.unit");
  EXPECT_EQ(problemWith("/batch/amount", "0").where, "batch.amount");
  EXPECT_EQ(problemWith("/batch/amount", std::string(200, '9')).code, core::ProblemCode::OutsideLimits);
  EXPECT_EQ(problemWith("/stock/factor", "abc").code, core::ProblemCode::NotANumber);
  EXPECT_EQ(problemWith("/acid/target_ph", "14.5").where, "acid.target_ph");
  EXPECT_EQ(problemWith("/acid/product", "kno3").where, "acid.product"); // neither acid nor base
  EXPECT_EQ(problemWith("/water/titration/seek", "gold").where, "water.titration.seek");
  EXPECT_EQ(problemWith("/water/titration/readings/1/ph", "15").where, "water.titration.readings[1].ph");
  EXPECT_EQ(problemWith("/water/titration/sample/unit", "furlong").where, "water.titration.sample.unit");
  EXPECT_EQ(problemWith("/strange", 1).code, core::ProblemCode::UnknownKey);
}

TEST(FormulaDocument, AnOlderFileIsReadAndBecomesTheNewVersion) {
  auto json = *parseFormulaText(demoText());
  json["version"] = 1;
  json.erase("acid");
  json["water"].erase("titration");
  const auto read = parseFormulaText(formulaText(json));
  ASSERT_TRUE(read);
  EXPECT_EQ((*read)["version"], formulaFormatVersion);
  const auto document = readFormulaDocument(*read);
  EXPECT_EQ(document->given.acid.product->id, "hno3_60"); // the acid on its shelf
  EXPECT_FALSE(document->given.titration);
}

TEST(FormulaDocument, TheDemosOwnReadingsLeaveOneOut) {
  const auto document = readFormulaDocument(*parseFormulaText(demoText()));
  const auto answer = core::compute(document->given);
  ASSERT_TRUE(answer && answer->acid.titration);
  std::size_t outliers = 0;
  for (const auto& reading : answer->acid.titration->readings)
    outliers += reading.outlier;
  EXPECT_EQ(outliers, 1u);
  EXPECT_TRUE(answer->acid.titration->readings[3].outlier);
}

TEST(FormulaDocument, CutShortAnywhereItIsRefused) {
  const auto text = demoText();
  for (std::size_t n = 0; n + 3 < text.size(); n += 7)
    EXPECT_FALSE(parseFormulaText(text.substr(0, n))) << n;
}

TEST(Edit, AppliesAndComesBack) {
  const auto json = *parseFormulaText(demoText());
  const Edit edit{
      {core::DeedCode::ElementTarget, {"K", "210", "mg/L"}}, {{"/target/rows/3/mg_per_l", "205", "210"}}, ""};
  const auto next = withChanges(json, edit);
  ASSERT_TRUE(next);
  EXPECT_EQ((*next)["target"]["rows"][3]["mg_per_l"], "210");
  EXPECT_EQ(*withChanges(*next, inverse(edit)), json);
}

TEST(Edit, OneThatLeadsNowhereIsRefusedAndOneThatBreaksTheDocumentDoesNotRead) {
  const auto json = *parseFormulaText(demoText());
  const auto broken = withChanges(json, {{}, {{"/stock/factor", "100", "no"}}, ""});
  ASSERT_TRUE(broken);
  EXPECT_FALSE(readFormulaDocument(*broken));
  EXPECT_FALSE(withChanges(json, {{}, {{"no pointer", nullptr, 1}}, ""}));
}
