/// The verb of waters, through the real butte-cli program.
#include "support/run_cli.h"

#include <gmock/gmock.h>

using namespace butte::test;
using nlohmann::json;
using ::testing::HasSubstr;

namespace {

json hardWater() {
  return json::parse(R"({"name": "bore", "ph": 7.4, "ec_ms_per_cm": 0.58, "analysis_mg_per_l":
    {"Ca": 78, "Mg": 14, "Na": 23, "Cl": 34, "SO4": 41, "NO3": 12, "HCO3": 248}})");
}

json verdict(const json& out, const std::string& property) {
  for (const auto& row : out["verdicts"]) {
    if (row["property"] == property) return row;
  }
  return nullptr;
}

} // namespace

TEST(WaterVerb, PrintsNormalFormChecksAndVerdicts) {
  const auto out = cli("water", json{{"water", hardWater()}}.dump()).parsed();
  const auto& source = out["sources"][0];
  EXPECT_EQ(source["name"], "bore");
  EXPECT_NEAR(source["water"]["elements_mg_per_l"]["N_NO3"].get<double>(), 12 * 14.007 / 62.004, 1e-3);
  EXPECT_TRUE(source["water"]["elements_mg_per_l"]["B"].is_null()) << "not measured is not zero";
  EXPECT_NEAR(source["water"]["alkalinity_meq_per_l"].get<double>(), 248 / 61.017, 1e-3);
  // Sum of equivalents by hand: 78/20.039 + 14/12.1525 + 23/22.990.
  EXPECT_NEAR(source["checks"]["cations_meq_per_l"].get<double>(), 3.8924 + 1.1520 + 1.0004, 1e-3);
  EXPECT_TRUE(source["checks"]["doubts"].empty()) << source["checks"].dump();
  const auto alkalinity = verdict(out, "alkalinity_as_CaCO3");
  EXPECT_EQ(alkalinity["level"], "watch");
  EXPECT_LT(alkalinity["fine_below"].get<double>(), 203) << alkalinity.dump();
  EXPECT_GT(alkalinity["too_high_above"].get<double>(), 203);
  EXPECT_THAT(verdict(out, "alkalinity_as_CaCO3")["source"].get<std::string>(), ::testing::Not(""));
  EXPECT_EQ(verdict(out, "B")["level"], "not_measured");
}

TEST(WaterVerb, AnyUnitAndTheMixUpNamedWithWhatWouldBalance) {
  auto water = hardWater();
  water["analysis_mg_per_l"].erase("HCO3");
  water["rows"] = json::array({{{"key", "alkalinity_as_CaCO3"}, {"value", 11.39}, {"unit", "dH"}}});
  auto out = cli("water", json{{"water", water}}.dump()).parsed();
  EXPECT_NEAR(out["water"]["alkalinity_meq_per_l"].get<double>(), 11.39 / 2.8, 0.02) << "1 meq/L = 2.8 dH";
  EXPECT_TRUE(out["sources"][0]["checks"]["would_balance"].empty());
  // HCO3 where the sheet meant alkalinity as CaCO3.
  water["rows"] = json::array({{{"key", "HCO3"}, {"value", 203}}});
  out = cli("water", json{{"water", water}}.dump()).parsed();
  const auto& checks = out["sources"][0]["checks"];
  EXPECT_EQ(checks["doubts"][0]["code"], "charge_unbalanced");
  EXPECT_EQ(checks["would_balance"][0]["to"], "alkalinity_as_CaCO3");
}

TEST(WaterVerb, BlendsTreatsAndFindsAShare) {
  json input;
  auto rain = json::parse(R"({"name": "rain", "share": 3, "ph": 5.6, "ec_ms_per_cm": 0.02,
    "analysis_mg_per_l": {"Ca": 1, "Mg": 0.1, "Na": 1.5, "Cl": 2.4, "HCO3": 2, "SO4": 0.5, "NO3": 0}})");
  auto bore = hardWater();
  bore["share"] = 1;
  input["waters"] = json::array({rain, bore});
  input["find_share"] = {{"of", "bore"}, {"alkalinity_as_CaCO3_mg_per_l", 40}};
  auto out = cli("water", input.dump()).parsed();
  EXPECT_NEAR(out["water"]["elements_mg_per_l"]["Ca"].get<double>(), (3 * 1 + 78) / 4.0, 1e-9);
  const double share = out["largest_share"];
  EXPECT_NEAR(share * 248 / 61.017 + (1 - share) * 2 / 61.017, 40 / 50.043, 1e-3);
  bore["treatment"] = {{"kind", "reverse_osmosis"}, {"recovery_percent", 25}};
  input["waters"][1] = bore;
  out = cli("water", input.dump()).parsed();
  EXPECT_LT(out["sources"][1]["treated"]["elements_mg_per_l"]["Ca"].get<double>(), 3);
  EXPECT_NEAR(out["sources"][1]["treated"]["waste_l_per_l"].get<double>(), 3, 1e-9);
  const auto none = cli("water", R"({"water": {"name": "well", "analysis_mg_per_l": {"Na": 50}},
                                     "find_share": {"of": "well", "Na_mg_per_l": 20}})");
  EXPECT_EQ(none.code, 3);
  EXPECT_TRUE(none.parsed()["largest_share"].is_null());
}

TEST(WaterVerb, ReadsALaboratorysTable) {
  const auto out = cli("water", "Parameter;Result;Unit\nCalcium;78,0;mg/l\nNitrate as N;2,7;mg/l\n"
                                "Bicarbonate;248;mg/l\nUnobtainium;5;mg/l\n")
                       .parsed();
  EXPECT_DOUBLE_EQ(out["water"]["elements_mg_per_l"]["Ca"], 78);
  EXPECT_DOUBLE_EQ(out["water"]["elements_mg_per_l"]["N_NO3"], 2.7);
  ASSERT_EQ(out["unplaced"].size(), 1u);
  EXPECT_EQ(out["unplaced"][0]["name"], "Unobtainium");
  EXPECT_EQ(out["unplaced"][0]["line"], 5);
}

TEST(WaterVerb, AcidFirstAndFromLittle) {
  json input{{"water", hardWater()},
             {"acid_first", {{"product", "hno3_60"}, {"alkalinity_left_meq_per_l", 1}}}};
  const auto out = cli("water", input.dump()).parsed();
  EXPECT_NEAR(out["water"]["alkalinity_meq_per_l"].get<double>(), 1, 1e-6);
  // (248/61.017 - 1) meq of HNO3 at 63.01 g/mol and 60 %.
  EXPECT_NEAR(out["acid_g_per_l"].get<double>(), (248 / 61.017 - 1) * 63.013 / 600, 1e-3);
  const auto little = cli("water", R"({"water": {"ec_ms_per_cm": 0.5, "estimate": true, "rows":
    [{"key": "hardness_as_CaCO3", "value": 10, "unit": "dH"}]}})")
                          .parsed();
  EXPECT_GT(little["water"]["plus_minus_mg_per_l"]["Na"].get<double>(), 1);
}

TEST(WaterVerb, BadInputIsNamed) {
  const std::pair<const char*, const char*> cases[] = {
      {R"({})", "water"},
      {R"({"water": {"ph": 15}})", "water.ph"},
      {R"({"water": {"ca": 5}})", "water.ca"},
      {R"({"water": {"analysis_mg_per_l": {"Ca": -1}}})", "Ca"},
      {R"({"water": {"rows": [{"key": "Ca", "value": 5, "unit": "bushel"}]}})", "bushel"},
      {R"({"water": {"rows": [{"key": "B", "value": 5, "unit": "meq/L"}]}})", "B"},
      {R"({"water": {"treatment": {"kind": "magic"}}})", "water.treatment.kind"},
      {R"({"water": {}, "acid_first": {"product": "vinegar"}})", "acid_first.product"},
      {R"({"water": {}, "system": "both"})", "system"},
      {R"({"water": {"name": "w"}, "find_share": {"of": "x", "Na_mg_per_l": 1}})", "find_share.of"},
      {R"({"water": {"name": "w"}, "find_share": {"of": "w"}})", "one limit"},
      {R"({"waters": [{"share": -1}]})", "waters[0].share"},
      {"nothing of use", "FILE"},
  };
  for (const auto& [input, named] : cases) {
    const auto run = cli("water", input);
    EXPECT_EQ(run.code, 2) << input << run.out;
    EXPECT_THAT(run.err, HasSubstr(named)) << input;
    EXPECT_EQ(run.out, "") << input;
  }
}
