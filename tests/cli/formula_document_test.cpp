#include "base/decimal.h"
#include "edit.h"
#include "formula_json.h"
#include "stages.h"
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
  EXPECT_EQ(problemWith("/way", "sideways").where, "way");
  EXPECT_EQ(problemWith("/direct", Json{{"present", {{"amount", "-1"}, {"unit", "L"}}}}).where,
            "direct.present.amount");
  EXPECT_EQ(problemWith("/direct", Json{{"presents", 1}}).code, core::ProblemCode::UnknownKey);
  EXPECT_EQ(problemWith("/batch/amount", std::string(200, '9')).code, core::ProblemCode::OutsideLimits);
  EXPECT_EQ(problemWith("/stock/factor", "abc").code, core::ProblemCode::NotANumber);
  EXPECT_EQ(problemWith("/acid/target_ph", "14.5").where, "acid.target_ph");
  EXPECT_EQ(problemWith("/acid/product", "kno3").where, "acid.product"); // neither acid nor base
  EXPECT_EQ(problemWith("/water/titration/seek", "gold").where, "water.titration.seek");
  EXPECT_EQ(problemWith("/water/titration/readings/1/ph", "15").where, "water.titration.readings[1].ph");
  EXPECT_EQ(problemWith("/water/titration/sample/unit", "furlong").where, "water.titration.sample.unit");
  EXPECT_EQ(problemWith("/strange", 1).code, core::ProblemCode::UnknownKey);
}

namespace {

/// Every leaf of a document with its place as problems name it: "/stock/tanks/0/name" is
/// "stock.tanks[0].name".
void leavesOf(const Json& json, const std::string& pointer, const std::string& place,
              std::vector<std::pair<std::string, std::string>>& out) {
  if (json.is_object()) {
    for (const auto& [key, value] : json.items())
      leavesOf(value, pointer + "/" + key, place.empty() ? key : place + "." + key, out);
  } else if (json.is_array()) {
    for (std::size_t i = 0; i < json.size(); ++i)
      leavesOf(json[i], pointer + "/" + std::to_string(i), place + "[" + std::to_string(i) + "]", out);
  } else {
    out.emplace_back(pointer, place);
  }
}

std::string parentOf(const std::string& place) {
  return place.substr(0, place.find_last_of(".["));
}

} // namespace

TEST(FormulaDocument, EveryLeafRefusesWhatItIsNotAndNamesItsOwnPlace) {
  const auto demo = *parseFormulaText(demoText());
  std::vector<std::pair<std::string, std::string>> leaves;
  leavesOf(demo, "", "", leaves);
  ASSERT_GT(leaves.size(), 150u);
  const Json junk[] = {3, Json::array(), Json{{"amount", "5"}}};
  int refused = 0;
  for (const auto& [pointer, place] : leaves) {
    if (pointer == "/version") continue; // an older number is an older file
    for (const auto& value : junk) {
      auto json = demo;
      json[Json::json_pointer(pointer)] = value;
      const auto read = readFormulaDocument(json);
      EXPECT_FALSE(read) << pointer << " reads " << value;
      if (read) continue;
      ++refused;
      const auto& where = read.problem().where;
      EXPECT_TRUE(where.starts_with(parentOf(place)) || place.starts_with(where))
          << where << " for " << pointer;
      EXPECT_FALSE(words::problemLine(read.problem()).empty());
    }
  }
  EXPECT_GT(refused, 450);
}

TEST(FormulaDocument, AFigureThatIsNoneIsRefusedAtItsPlaceWhereverItStands) {
  const auto demo = *parseFormulaText(demoText());
  std::vector<std::pair<std::string, std::string>> leaves;
  leavesOf(demo, "", "", leaves);
  int judged = 0;
  for (const auto& [pointer, place] : leaves) {
    const auto& leaf = demo[Json::json_pointer(pointer)];
    if (!leaf.is_string() || !core::parseDecimal(leaf.get<std::string>())) continue;
    ++judged;
    for (const char* bad : {"ten", "1e999", "-1e300"}) {
      auto json = demo;
      json[Json::json_pointer(pointer)] = bad;
      const auto read = readFormulaDocument(json);
      ASSERT_FALSE(read) << pointer << " takes " << bad;
      EXPECT_TRUE(place.starts_with(read.problem().where) ||
                  read.problem().where.starts_with(parentOf(place)))
          << read.problem().where << " for " << pointer;
    }
  }
  EXPECT_GT(judged, 80);
}

TEST(FormulaDocument, TanksSayWhatIsWrongWithThem) {
  EXPECT_EQ(problemWith("/stock/factor", "0.2").where, "stock.factor");
  EXPECT_EQ(problemWith("/stock/tanks", Json::array()).where, "stock.tanks");
  EXPECT_EQ(problemWith("/stock/tanks/0/made_with", "part:x").where, "stock.tanks[0].made_with");
  EXPECT_EQ(problemWith("/stock/tanks/0/made_with", "sea").where, "stock.tanks[0].made_with");
  EXPECT_EQ(
      problemWith("/stock/placed", Json::array({{{"product", "kno3"}, {"shares", {"0.5", "0.2"}}}})).code,
      core::ProblemCode::OutOfRange)
      << "shares that do not add up";
  const auto placed = [](const std::vector<std::string>& shares) {
    Json row;
    row["product"] = "kno3";
    row["shares"] = shares;
    Json rows = Json::array();
    rows.push_back(row);
    return problemWith("/stock/placed", rows);
  };
  EXPECT_EQ(placed({"0.5", "0.2", "0"}).code, core::ProblemCode::OutOfRange) << "shares that do not add up";
  EXPECT_EQ(placed({"1", "0", "0", "0"}).code, core::ProblemCode::OutOfRange)
      << "four shares for three tanks";
  EXPECT_EQ(placed({"2", "-1", "0"}).code, core::ProblemCode::OutOfRange) << "more than all of it";
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

// Stages of one crop (common practice: a normal sheet and a boosted one): own target and weights, one water,
// one shelf, one set of tanks.
TEST(Stages, EachHasItsOwnTargetAndWeightsAndShareTheRest) {
  const auto plain = *parseFormulaText(demoText());
  EXPECT_TRUE(stageNames(plain).empty());
  auto json = withNewStage(plain, "normal", "boosted");
  EXPECT_EQ(stageNames(json), (std::vector<std::string>{"normal", "boosted"}));
  EXPECT_EQ(stageInHand(json), 1u);
  json["target"]["rows"][0]["mg_per_l"] = "321";
  json["shelf"][0]["held"] = amountJson("9", "kg");
  json["shelf"][1]["on"] = false;
  json["aim"] = {{"way", "bands_first"}};
  json["batch"] = amountJson("777", "L"); // shared
  ASSERT_FALSE(formulaProblem(json));

  auto normal = withStageInHand(json, 0);
  ASSERT_FALSE(formulaProblem(normal)) << words::problemLine(*formulaProblem(normal));
  EXPECT_EQ(normal["target"], plain["target"]);
  EXPECT_EQ(normal["shelf"], plain["shelf"]);
  EXPECT_EQ(normal.value("aim", Json()), plain.value("aim", Json()));
  EXPECT_EQ(normal["batch"], amountJson("777", "L"));
  const auto again = withStageInHand(normal, 1);
  for (const auto* place : {"stages", "stage", "target", "shelf", "aim", "batch"})
    EXPECT_TRUE(again[place] == json[place]) << place << ": there and back";

  // What came onto the shelf, or left it, since.
  normal["shelf"].erase(2);
  normal["shelf"].push_back(shelfEntry("kcl"));
  const auto boosted = withStageInHand(normal, 1);
  ASSERT_FALSE(formulaProblem(boosted));
  EXPECT_EQ(boosted["shelf"].size(), plain["shelf"].size());
  EXPECT_EQ(boosted["shelf"].back()["id"], "kcl");
  EXPECT_EQ(boosted["shelf"][0]["held"], amountJson("9", "kg"));

  EXPECT_EQ(stageNames(withStageRenamed(boosted, 1, "second truss"))[1], "second truss");
  EXPECT_FALSE(formulaProblem(withStageRenamed(boosted, 1, "second truss")));
  EXPECT_TRUE(stageNames(withoutStage(boosted, 0)).empty()) << "one alone is no stage";
  EXPECT_FALSE(withoutStage(boosted, 0).contains("stage"));
}

TEST(Stages, AFaultInOneThatIsNotInHandIsFoundBeforeItIsTaken) {
  const auto json = withNewStage(*parseFormulaText(demoText()), "normal", "boosted");
  const struct {
    const char *pointer, *value, *where;
  } cases[] = {{"/stages/0/target/rows/0/mg_per_l", "\"much\"", "stages[0].target.rows[0].mg_per_l"},
               {"/stages/0/target", "null", "stages[0].target"},
               {"/stages/0/name", "\"\"", "stages[0].name"},
               {"/stages/0/name", "\"boosted\"", "stages[1].name"},
               {"/stages/0/weights/0/held", "{\"amount\": \"-1\", \"unit\": \"g\"}",
                "stages[0].weights[0].held.amount"},
               {"/stages/0/pony", "1", "stages[0].pony"},
               {"/stage", "\"third\"", "stage"}};
  for (const auto& c : cases) {
    auto bad = json;
    bad[Json::json_pointer(c.pointer)] = Json::parse(c.value);
    const auto problem = formulaProblem(bad);
    ASSERT_TRUE(problem) << c.pointer;
    EXPECT_EQ(problem->where, c.where) << words::problemLine(*problem);
  }
  auto many = json;
  for (int i = 0; i < 8; ++i)
    many = withNewStage(many, "", "stage " + std::to_string(i));
  ASSERT_TRUE(formulaProblem(many)) << "more than a card can hold";
}
