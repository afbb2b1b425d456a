// What scripts read of an answer: why an element misses and what holds it, which line of a sheet is suspect,
// what readings and levels tell.
#include "support/run_cli.h"

#include <gmock/gmock.h>
#include <set>

using namespace butte::test;
using nlohmann::json;
using ::testing::Contains;

namespace {

json product(const char* formula) {
  return {{"id", formula}, {"formula", formula}};
}

json answer(const char* verb, const json& question, int code = 0) {
  const auto run = cli(verb, question.dump());
  EXPECT_EQ(run.code, code) << run.err << question;
  return run.out.empty() ? json() : run.parsed();
}

} // namespace

TEST(CliAnswers, AReasonNamesTheLimitsThatHoldTheElement) {
  // Potassium only as sulfate, sulfur capped by its band; magnesium only with sulfate too.
  const json question{{"products", {product("K2SO4"), product("MgSO4·7H2O")}},
                      {"target_mg_per_l", {{"K", 250}, {"Mg", 40}, {"S", 60}}},
                      {"volume_l", 1000}};
  const auto out = answer("solve", question);
  ASSERT_EQ(out["limits"].size(), out["reasons"].size()) << out;
  std::set<std::string> kinds;
  for (const auto& reason : out["limits"]) {
    EXPECT_TRUE(reason["over"].is_boolean() && reason["reachable_mg_per_l"].is_number()) << reason;
    for (const auto& limit : reason["limits"]) {
      kinds.insert(limit["kind"]);
      EXPECT_TRUE(limit["carriers"].is_array());
      if (limit["kind"] == "band") {
        EXPECT_TRUE(limit["edge"] == "upper" || limit["edge"] == "lower") << limit;
        EXPECT_TRUE(limit["element"].is_string()) << limit;
      }
    }
  }
  EXPECT_TRUE(kinds.contains("band")) << out["reasons"];
}

TEST(CliAnswers, ACapIsNamedAsWhatHolds) {
  const auto kindsOf = [](const json& question) {
    std::set<std::string> kinds;
    const auto out = answer("solve", question);
    for (const auto& reason : out["limits"])
      for (const auto& limit : reason.value("limits", json::array()))
        kinds.insert(limit["kind"].get<std::string>());
    return kinds;
  };
  json question{{"products", {product("KCl"), product("K2SO4")}},
                {"target_mg_per_l", {{"K", 200}}},
                {"volume_l", 1000}};
  question["max_mg_per_l"] = {{"Cl", 30}, {"S", 10}};
  EXPECT_THAT(kindsOf(question), Contains("cap"));
}

TEST(CliAnswers, ASheetsSuspectLineSaysWhatItShouldBe) {
  json question{{"products", {product("KNO3"), product("MgSO4·7H2O")}},
                {"target_mg_per_l", {{"K", 200}, {"N_NO3", 71.6}, {"Mg", 40}}},
                {"weights_g", {{"KNO3", 5172}, {"MgSO4·7H2O", 405.6}}},
                {"volume_l", 1000},
                {"mode", "audit"}};
  const auto run = cli("solve", question.dump());
  ASSERT_EQ(run.code, 0) << run.err;
  const auto suspects = run.parsed()["suspects"];
  ASSERT_EQ(suspects.size(), 1u);
  EXPECT_EQ(suspects[0]["product"], "KNO3");
  EXPECT_EQ(suspects[0]["slip"], "decimal_point");
  EXPECT_DOUBLE_EQ(suspects[0]["stands_g"].get<double>(), 5172);
  EXPECT_NEAR(suspects[0]["fits_g"].get<double>(), 517.2, 5);
}
