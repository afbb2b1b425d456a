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

// Figures beyond all measure end at the door, with their key; what the door lets in is answered.
TEST(CliAnswers, FiguresThatOverflowOrVanishAreRefusedByName) {
  const nlohmann::json salts = {{{"id", "kno3"}, {"formula", "KNO3"}, {"price_per_kg", 1}},
                                {{"id", "can"}, {"formula", "Ca(NO3)2·4H2O"}, {"price_per_kg", 1}}};
  for (const double absurd : {1e-160, 5e-324, 1e160, 1e300}) {
    const auto target = [&](double value) { return nlohmann::json{{"K", value}, {"Ca", value}}; };
    auto one = salts;
    one[0]["purity_percent"] = absurd;
    auto label = salts;
    label[0] = {{"id", "bag"}, {"label_percent", {{"K2O", absurd}, {"N_NO3", 5}}}};
    const std::tuple<const char*, const char*, nlohmann::json> cases[] = {
        {"solve",
         "target_mg_per_l.",
         {{"products", salts}, {"volume_l", 10}, {"target_mg_per_l", target(absurd)}}},
        {"solve",
         "crops[0].target_mg_per_l.",
         {{"products", salts},
          {"volume_l", 10},
          {"crops", {{{"name", "a"}, {"target_mg_per_l", target(absurd)}}}}}},
        {"solve", "purity_percent", {{"products", one}, {"volume_l", 10}, {"target_mg_per_l", target(50)}}},
        {"solve", "label_percent", {{"products", label}, {"volume_l", 10}, {"target_mg_per_l", target(50)}}},
        {"solve", "volume_l", {{"products", salts}, {"volume_l", absurd}, {"target_mg_per_l", target(50)}}},
        {"mix", "weights_g.", {{"products", salts}, {"volume_l", 10}, {"weights_g", {{"kno3", absurd}}}}},
    };
    for (const auto& [verb, place, input] : cases) {
      const auto run = cli(verb, input.dump());
      EXPECT_EQ(run.code, 2) << place << " " << absurd << run.out.substr(0, 80);
      EXPECT_THAT(run.err, ::testing::HasSubstr(place)) << absurd;
      EXPECT_THAT(run.err, ::testing::HasSubstr("out of range")) << absurd;
    }
  }
  for (const double odd : {1e-14, 1e-9, 1e5}) {
    const nlohmann::json wish = {{"name", "a"}, {"target_mg_per_l", {{"K", odd}, {"Ca", odd}}}},
                         other = {{"name", "b"}, {"target_mg_per_l", {{"K", 200}}}};
    const auto run =
        cli("solve", nlohmann::json{{"products", salts}, {"volume_l", 10}, {"crops", {wish, other}}}.dump());
    EXPECT_THAT((std::vector{0, 3}), ::testing::Contains(run.code)) << odd << run.err;
  }
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

// Phosphate first, calcium last, nine tenths of the water before (common practice); readings climb to the
// feed's own over the share of water that is in.
TEST(CliAnswers, WeightsGoStraightIntoAVesselStepByStep) {
  json question{{"products", {product("KH2PO4"), product("Ca(NO3)2·4H2O"), product("HNO3")}},
                {"weights_g", {{"KH2PO4", 2}, {"Ca(NO3)2·4H2O", 8}, {"HNO3", 1}}},
                {"volume_l", 10},
                {"direct", json::object()}};
  auto out = answer("mix", question)["direct"];
  EXPECT_NEAR(out["pour_l"], 9, 1e-9);
  EXPECT_NEAR(out["to_mark_l"], 1, 1e-9);
  ASSERT_EQ(out["steps"].size(), 3u);
  EXPECT_EQ(out["steps"][0]["product"], "KH2PO4");
  EXPECT_EQ(out["steps"][2]["product"], "HNO3");
  EXPECT_GT(out["steps"][1]["ec_after_ms_per_cm_25c"], out["steps"][0]["ec_after_ms_per_cm_25c"]);
  question["direct"] = {{"acid", "first"}, {"present_l", 5}};
  out = answer("mix", question)["direct"];
  EXPECT_EQ(out["steps"][0]["product"], "HNO3");
  EXPECT_NEAR(out["steps"][0]["g"], 0.5, 1e-9) << "half of it is in already";
  question["direct"] = {{"present_l", 11}};
  EXPECT_TRUE(answer("mix", question, 2).is_null()) << "more than it holds";
  question["direct"] = {{"acid", "sometimes"}};
  answer("mix", question, 2);
  // With a target as well.
  const json solved{{"products", {product("KNO3")}},
                    {"target_mg_per_l", {{"K", 100}}},
                    {"volume_l", 100},
                    {"direct", json::object()}};
  EXPECT_EQ(answer("solve", solved)["direct"]["steps"].size(), 1u);
}
