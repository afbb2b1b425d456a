/// The verbs of the solution chemistry, through the real butte-cli program.
#include "support/run_cli.h"

#include <cmath>
#include <gmock/gmock.h>

using namespace butte::test;
using nlohmann::json;
using ::testing::HasSubstr;

namespace {

json hardWater() {
  return json::parse(R"({"water": {"ph": 7.8, "temperature_c": 25, "analysis_mg_per_l":
    {"Ca": 78, "Mg": 14, "Na": 23, "Cl": 34, "SO4": 41, "NO3": 12, "HCO3": 248}}})");
}

json acidRequest(const std::string& formula, double percent, double targetPh) {
  auto input = hardWater();
  input["acid"] = {
      {"formula", formula}, {"purity_percent", percent}, {"density_kg_per_l", 1.37}, {"liquid", true}};
  input["target_ph"] = targetPh;
  input["volume_l"] = 1000;
  return input;
}

json solution(const std::vector<std::pair<std::string, double>>& gramsPerLitre) {
  json input{{"products", json::array()}, {"weights_g", json::object()}};
  for (const auto& [formula, grams] : gramsPerLitre) {
    input["products"].push_back({{"id", formula}, {"formula", formula}});
    input["weights_g"][formula] = grams;
  }
  return input;
}

double total(const json& species, const std::vector<std::string>& names) {
  double sum = 0;
  for (const auto& name : names)
    sum += species.value(name, 0.0);
  return sum;
}

} // namespace

TEST(EquilibriumVerb, PrintsItsKeysAndTheWatersOwnPh) {
  const auto out = cli("equilibrium", hardWater().dump()).parsed();
  for (const char* key : {"ph", "ionic_strength_mol_per_l", "species_mmol_per_l", "saturation_index",
                          "solids", "ec_ms_per_cm_25c", "warnings"})
    EXPECT_TRUE(out.contains(key)) << key;
  EXPECT_NEAR(out["ph"].get<double>(), 7.8, 0.002);
  EXPECT_GT(out["saturation_index"]["calcite"].get<double>(), 0.3);
  EXPECT_EQ(out["solids"][0]["name"], "calcite");
  EXPECT_NEAR(
      total(out["species_mmol_per_l"], {"Ca+2", "CaSO4(aq)", "CaHCO3+", "CaCO3(aq)", "CaOH+", "CaNO3+"}),
      78 / 40.078, 1e-6);
}

TEST(EquilibriumVerb, AHeldPhIsHeldAndOpenWaterClimbs) {
  auto input = hardWater();
  input["ph"] = 6.5;
  EXPECT_DOUBLE_EQ(cli("equilibrium", input.dump()).parsed()["ph"].get<double>(), 6.5);
  input.erase("ph");
  input["co2"] = "open";
  const double open = cli("equilibrium", input.dump()).parsed()["ph"].get<double>();
  EXPECT_NEAR(open, 8.7, 0.1);
  input["pco2_atm"] = 0.05; // soil air
  EXPECT_LT(cli("equilibrium", input.dump()).parsed()["ph"].get<double>(), open - 1.5);
}

TEST(EquilibriumVerb, PhosphateBufferAndKclStandardComeOut) {
  // NBS 6.865 at 25 degC; the KCl standard of 0.01 mol/L, 1.4125 mS/cm (from memory).
  auto buffer = solution({{"KH2PO4", 3.402}, {"K2HPO4", 4.355}});
  buffer["temperature_c"] = 25;
  EXPECT_NEAR(cli("equilibrium", buffer.dump()).parsed()["ph"].get<double>(), 6.865,
              0.05); // all potassium here
  const auto kcl = cli("equilibrium", solution({{"KCl", 0.74548}}).dump()).parsed();
  EXPECT_NEAR(kcl["ec_ms_per_cm_25c"].get<double>(), 1.4125, 0.014);
  EXPECT_NEAR(kcl["ec_ms_per_cm"].get<double>(), 1.278,
              0.02); // at 20 degC, the standard's own table (from memory)
}

TEST(EquilibriumVerb, GypsumFallsFromTheConcentrateNotFromTheFeed) { // common practice
  const auto strong =
      cli("equilibrium", solution({{"Ca(NO3)2·4H2O", 90}, {"MgSO4·7H2O", 50}}).dump()).parsed();
  ASSERT_FALSE(strong["solids"].empty());
  EXPECT_EQ(strong["solids"][0]["name"], "gypsum");
  EXPECT_GT(strong["solids"][0]["g_per_l"].get<double>(), 20);
  const auto feed =
      cli("equilibrium", solution({{"Ca(NO3)2·4H2O", 0.9}, {"MgSO4·7H2O", 0.5}}).dump()).parsed();
  EXPECT_TRUE(feed["solids"].empty());
}

TEST(EquilibriumVerb, PastWhatWasCheckedItSaysSo) {
  const auto strong = cli("equilibrium", solution({{"Ca(NO3)2·4H2O", 600}}).dump()).parsed();
  EXPECT_THAT(strong["warnings"].dump(), HasSubstr("beyond_checked_strength"));
  const auto feed = cli("equilibrium", solution({{"Ca(NO3)2·4H2O", 0.9}}).dump()).parsed();
  EXPECT_THAT(feed["warnings"].dump(), ::testing::Not(HasSubstr("beyond_checked_strength")));
}

TEST(EquilibriumVerb, AWaterWithoutAlkalinityHasNoPh) {
  const auto out = cli("equilibrium", R"({"water": {"ph": 7, "analysis_mg_per_l": {"Ca": 40}}})").parsed();
  EXPECT_TRUE(out["ph"].is_null());
  EXPECT_THAT(out["warnings"].dump(), HasSubstr("alkalinity_unknown"));
}

TEST(AcidVerb, PrintsTheDoseWhatItBringsAndACurveThatPassesTheAim) {
  const auto out = cli("acid", acidRequest("HNO3", 60, 5.8).dump()).parsed();
  const double meq = out["meq_per_l"].get<double>();
  EXPECT_NEAR(out["dose_g"].get<double>(), meq * 63.012 / 0.6, 0.01); // meq/L x 1000 L, in grams
  EXPECT_NEAR(out["dose_ml"].get<double>(), out["dose_g"].get<double>() / 1.37, 1e-6);
  EXPECT_NEAR(out["adds_mg_per_l"]["N_NO3"].get<double>(), meq * 14.007, 0.01);
  EXPECT_NEAR(meq + out["alkalinity_left_meq_per_l"].get<double>(), 248 / 61.016, 0.002);
  ASSERT_EQ(out["curve"].size(), 60u);
  EXPECT_NEAR(out["curve"][0]["ph"].get<double>(), 7.8, 0.01);
  bool passed = false;
  for (std::size_t i = 1; i < 60; ++i)
    passed |= out["curve"][i - 1]["ph"].get<double>() >= 5.8 && out["curve"][i]["ph"].get<double>() <= 5.8;
  EXPECT_TRUE(passed);
}

TEST(AcidVerb, SulfuricBringsSulfurAndABaseLiftsThePh) {
  const auto sulfuric = cli("acid", acidRequest("H2SO4", 37, 6).dump()).parsed();
  EXPECT_NEAR(sulfuric["adds_mg_per_l"]["S"].get<double>(), sulfuric["meq_per_l"].get<double>() * 16.03,
              0.05);
  auto base = acidRequest("KOH", 90, 8.5);
  base["acid"].erase("density_kg_per_l");
  const auto lifted = cli("acid", base.dump()).parsed();
  EXPECT_TRUE(lifted["dose_ml"].is_null());
  EXPECT_LT(lifted["meq_per_l"].get<double>(), 0);
  EXPECT_GT(lifted["adds_mg_per_l"]["K"].get<double>(), 0);
}

TEST(AcidVerb, WhatHasNoAnswerEndsWithThreeAndWhatIsBadWithTwo) {
  const auto away = cli("acid", acidRequest("KOH", 90, 5.5).dump());
  EXPECT_EQ(away.code, 3);
  EXPECT_THAT(away.out, HasSubstr("can't bring"));
  const auto refused = [](json input, const std::string& named, const std::string& verb = "acid") {
    const auto run = cli(verb, input.dump());
    EXPECT_EQ(run.code, 2) << named;
    EXPECT_TRUE(run.out.empty());
    EXPECT_THAT(run.err, HasSubstr(named));
  };
  auto input = acidRequest("HNO3", 60, 5.8);
  input.erase("acid");
  refused(input, "acid");
  input = acidRequest("HNO3", 60, 15);
  refused(input, "target_ph");
  input = acidRequest("HNO3", 60, 5.8);
  input["co2"] = "ajar";
  refused(input, "co2");
  input = acidRequest("HNO3", 60, 5.8);
  input["pco2_atm"] = 0.1; // without "open" it would be ignored
  refused(input, "co2");
  input = acidRequest("HNO3", 60, 5.8);
  input["water"]["analysis_mg_per_l"].erase("HCO3");
  refused(input, "HCO3");
  input = hardWater();
  input["temperature_c"] = 80;
  refused(input, "temperature_c", "equilibrium");
  refused(json::parse(R"({"acid": {"formula": "HNO3", "colour": 1}, "target_ph": 6})"), "acid.colour");
}

TEST(MixVerb, TellsThePhAsMixedAndInAir) {
  auto input = hardWater();
  input["products"] = {{{"id", "a"}, {"formula", "KH2PO4"}}};
  input["weights_g"] = {{"a", 0.2}};
  const auto out = cli("mix", input.dump()).parsed();
  EXPECT_LT(out["ph"].get<double>(), 7.6);
  EXPECT_GT(out["ph_in_air"].get<double>(), out["ph"].get<double>() + 0.5);
}
