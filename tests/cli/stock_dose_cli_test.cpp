/// `butte-cli stock` and `dose` through the real program.
#include "support/run_cli.h"

#include <gmock/gmock.h>

using namespace butte::test;
using nlohmann::json;
using ::testing::HasSubstr;

namespace {

json recipe() {
  return json::parse(R"({
    "water": {"ph": 7.6, "temperature_c": 18, "analysis_mg_per_l":
      {"Ca": 52, "Mg": 9, "Na": 21, "K": 2, "Cl": 30, "SO4": 28, "HCO3": 166, "NO3": 9}},
    "products": [{"id": "cn", "formula": "Ca(NO3)2·4H2O"}, {"id": "kno3", "formula": "KNO3"},
      {"id": "mkp", "formula": "KH2PO4"}, {"id": "epsom", "formula": "MgSO4.7H2O"},
      {"id": "mo", "formula": "Na2MoO4.2H2O"},
      {"id": "acid", "formula": "HNO3", "purity_percent": 60, "density_kg_per_l": 1.37, "liquid": true}],
    "weights_g": {"cn": 500, "kno3": 400, "mkp": 150, "epsom": 200, "mo": 0.12, "acid": 230}, "volume_l": 1000,
    "stock": {"factor": 100, "temperature_c": 8, "tanks": {"K": {"volume_l": 200}, "L": {"volume_l": 200},
      "sour": {"volume_l": 60, "use": "acid"}}}})");
}

void expectRefused(const std::string& verb, const json& input, const std::string& named) {
  const auto run = cli(verb, input.dump());
  EXPECT_EQ(run.code, 2) << input << run.out;
  EXPECT_TRUE(run.out.empty()) << run.out;
  EXPECT_THAT(run.err, HasSubstr(named));
  EXPECT_EQ(std::count(run.err.begin(), run.err.end(), '\n'), 1) << run.err;
}

json lineReservoir() {
  return json::parse(R"({"reservoir": {"volume_l": 100, "ec_now": 0.5, "ec_water": 0.5, "ec_target": 1.5,
                         "ec_full_strength": 2.0, "stock_ml_per_l": 10}})");
}

} // namespace

TEST(StockCli, TanksSayWhatTheyHoldWhateverTheirLetter) {
  const auto run = cli("stock", recipe().dump());
  ASSERT_EQ(run.code, 0) << run.err;
  const auto tanks = run.parsed()["tanks"];
  EXPECT_EQ(tanks["K"]["holds"], "calcium side");
  EXPECT_EQ(tanks["L"]["holds"], "sulfate and phosphate side");
  EXPECT_EQ(tanks["sour"]["holds"], "acid");
  EXPECT_NEAR(tanks["sour"]["acid"]["ml"].get<double>(), 230.0 * 100 / 1000 * 60 / 1.37, 1e-6);
  EXPECT_LT(tanks["sour"]["acid"]["water_ph"].get<double>(), 6.2);
  double cn = tanks["K"]["g"]["cn"];
  EXPECT_NEAR(cn, 10000, 1e-9);
  EXPECT_GT(tanks["L"]["density_kg_per_l"].get<double>(), 1.02);
  EXPECT_LT(tanks["L"]["safe_factor"].get<double>(), tanks["L"]["max_factor"].get<double>());
}

TEST(StockCli, NightsHeatPreStocksAndDays) {
  auto input = recipe();
  input["stock"]["nights_c"] = {5, 10, 15};
  input["stock"]["factor"] = 620;
  input["stock"]["dissolve"] = {{"cold_c", 10}, {"hot_c", 60}, {"wanted_c", 18}};
  input["stock"]["scales"] = json::array({{{"readability_g", 1}, {"capacity_g", 5000}}});
  input["stock"]["feed_per_day_l"] = 1500;
  input["stock"]["season_days"] = 100;
  const auto run = cli("stock", input.dump());
  ASSERT_EQ(run.code, 0) << run.err;
  const auto out = run.parsed();
  const auto& nights = out["tanks"]["L"]["nights"];
  ASSERT_EQ(nights.size(), 3u);
  EXPECT_FALSE(nights[0]["solids"].empty()) << "1:620 crystallises at 5 degC";
  EXPECT_TRUE(nights[2]["solids"].empty()) << "and is clear at 15";
  EXPECT_GT(out["tanks"]["K"]["dissolving"]["hot_water_l"].get<double>(), 0);
  EXPECT_LT(out["tanks"]["K"]["dissolving"]["finished_c"].get<double>(), 10);
  EXPECT_NEAR(out["supplies"]["K"]["days_per_fill"].get<double>(), 200.0 * 620 / 1500, 1e-9);
  EXPECT_NEAR(out["season_g"]["cn"].get<double>(), 0.5 * 1500 * 100, 1e-6);
}

TEST(StockCli, AHandCanPutThemWrongAndSeesWhatThePlantsLack) {
  auto input = recipe();
  input["products"][3]["tank"] = "K";
  const auto out = cli("stock", input.dump()).parsed();
  const auto& tank = out["tanks"]["K"];
  EXPECT_EQ(tank["solids"][0]["name"], "gypsum");
  EXPECT_GT(tank["lost_mg_per_l_of_feed"]["S"].get<double>(), 5);
  EXPECT_EQ(tank["meetings"][0]["solid"], "gypsum");
  const auto right = cli("stock", recipe().dump()).parsed();
  EXPECT_LT(out["feed"]["elements_mg_per_l"]["S"].get<double>(),
            right["feed"]["elements_mg_per_l"]["S"].get<double>() - 5);
  EXPECT_NEAR(right["only"]["K"]["elements_mg_per_l"]["P"].get<double>(), 0, 1e-9);
}

TEST(StockCli, TwoSetsForTwoCropsFromOneWater) {
  auto input = recipe();
  input["sets"] = {{"berries", {{"weights_g", {{"cn", 500}, {"kno3", 400}}}}},
                   {"greens", {{"weights_g", {{"cn", 300}, {"kno3", 200}}}, {"stock", {{"factor", 50}}}}}};
  const auto run = cli("stock", input.dump());
  ASSERT_EQ(run.code, 0) << run.err;
  const auto out = run.parsed();
  EXPECT_NEAR(out["sets"]["greens"]["dose_ml_per_l"].get<double>(), 20, 1e-12);
  double cn = out["tank_grams_together"]["cn"];
  EXPECT_NEAR(cn, 0.5 * 100 * 200 + 0.3 * 50 * 1, 1e-6);
}

TEST(StockCli, NonsenseIsNamed) {
  auto input = recipe();
  input["stock"]["factor"] = 0;
  expectRefused("stock", input, "stock.factor");
  input = recipe();
  input["stock"]["tanks"]["K"]["volume_l"] = -5;
  expectRefused("stock", input, "stock.tanks.K.volume_l");
  input = recipe();
  input["stock"]["tanks"]["K"]["use"] = "soup";
  expectRefused("stock", input, "stock.tanks.K.use");
  input = recipe();
  input["stock"]["nights_c"] = {5, "cold"};
  expectRefused("stock", input, "stock.nights_c");
  input = recipe();
  input["stock"]["temperature_c"] = 400;
  expectRefused("stock", input, "stock.temperature_c");
  input = recipe();
  input["sets"] = {{"a", {{"stock", {{"factor", -1}}}}}};
  expectRefused("stock", input, "sets.a.stock.factor");
}

TEST(StockCli, EmptyTanksAndTemperaturesBeyondTheTablesAreNoAnswerNotFine) {
  auto input = recipe();
  input["weights_g"] = {{"cn", 500}};
  input["stock"]["temperature_c"] = 60;
  const auto out = cli("stock", input.dump()).parsed();
  EXPECT_EQ(out["tanks"]["L"]["holds"], "empty");
  EXPECT_TRUE(out["tanks"]["L"]["max_factor"].is_null());
  EXPECT_TRUE(out["tanks"]["K"]["max_factor"].is_null());
}

TEST(DoseCli, StockOfEachTankByTheStraightLine) {
  const auto out = cli("dose", lineReservoir().dump()).parsed();
  const double each = out["add_ml"]["A"];
  EXPECT_DOUBLE_EQ(each, out["add_ml"]["B"].get<double>());
  EXPECT_NEAR(each / (100 + 2 * each / 1000), 6.6667, 1e-3) << "mL in a finished litre";
  EXPECT_NEAR(out["ec_expected"].get<double>(), 1.5, 1e-9);
  auto down = lineReservoir();
  down["reservoir"]["ec_now"] = 2.0;
  EXPECT_NEAR(cli("dose", down.dump()).parsed()["add_water_l"].get<double>(), 50, 1e-6);
}

TEST(DoseCli, AFormulaPlansTheVesselStepByStep) {
  auto input = recipe();
  input["reservoir"] = {{"finished_l", 190}, {"ec_target", 1.4}, {"last_water_l", 10}, {"cautious", true}};
  input["acid"] = input["products"][5];
  input["acid"].erase("id");
  input["target_ph"] = 5.8;
  const auto run = cli("dose", input.dump());
  ASSERT_EQ(run.code, 0) << run.err;
  const auto out = run.parsed();
  EXPECT_EQ(out["steps"].front()["act"], "water");
  EXPECT_EQ(out["steps"].back()["act"], "last_water");
  EXPECT_NEAR(out["ec_expected"].get<double>(), 1.4, 5e-3);
  EXPECT_FALSE(out["add_ml"].contains("sour")) << "the acid is dosed by hand here";
}

TEST(DoseCli, ReadingsCausesDrawsVesselsRatios) {
  auto input = json::parse(R"({"readings": [{"ml_per_l": 5, "ec": 1.5}, {"ml_per_l": 10, "ec": 2.2}],
    "compare": {"ec_expected": 1.6, "ec_read": 1.35}, "reservoir": {"volume_l": 100, "ec_now": 0.4, "ec_water": 0.4,
    "ec_target": 1.6, "ec_full_strength": 1.6, "stock_ml_per_l": 10},
    "draw_down": {"drawn_l": {"A": 20, "B": 14}, "feed_l": 2000},
    "vessel": {"across_cm": 57, "height_cm": 88, "line_for_l": 190}, "ratio": {"floz_per_gal_us": 1},
    "injector": {"drawn_l": 0.92, "feed_l": 100, "series_ml_per_l": [10, 10]},
    "pump": {"ml_per_run": 25, "ml_per_minute": 100, "feed_per_hour_l": 300}})");
  const auto run = cli("dose", input.dump());
  ASSERT_EQ(run.code, 0) << run.err;
  const auto out = run.parsed();
  EXPECT_NEAR(out["line"]["ec_base"].get<double>(), 0.8, 1e-9);
  EXPECT_EQ(out["draw_down"]["weak"], "B");
  EXPECT_NEAR(out["vessel"]["line_cm"].get<double>(), 74.458, 1e-3);
  EXPECT_NEAR(out["ratio"]["one_to"].get<double>(), 128, 1e-9);
  EXPECT_NEAR(out["injector"]["factor"].get<double>(), 108.7, 0.01);
  EXPECT_NEAR(out["pump"]["runs_per_hour"].get<double>(), 120, 1e-9);
  EXPECT_THAT(out["causes"].dump(), HasSubstr("wrong_volume"));
}

TEST(DoseCli, UnequalStrengthAndUnequalDrawsShowInTheFeed) {
  auto input = recipe();
  input["products"].erase(5); // without the acid
  input["weights_g"].erase("acid");
  input["stock"]["tanks"].erase("sour");
  const auto feedWith = [&](const json& drawDown) {
    input["draw_down"] = drawDown;
    const auto run = cli("dose", input.dump());
    EXPECT_EQ(run.code, 0) << run.err;
    return run.parsed()["draw_down"];
  };
  const auto planned = feedWith({{"of_plan", json::object({{"K", 1}})}});
  const auto weak = feedWith({{"of_plan", {{"K", 0.6}}}});
  const auto slow = feedWith({{"drawn_l", {{"K", 0.6}, {"L", 1}}}, {"feed_l", 100}});
  const double calcium = planned["feed"]["elements_mg_per_l"]["Ca"];
  EXPECT_NEAR(weak["feed"]["elements_mg_per_l"]["Ca"].get<double>(), 52 + 0.6 * (calcium - 52), 1e-6)
      << "the water's own calcium stays";
  EXPECT_EQ(weak["feed"], slow["feed"]);
  EXPECT_DOUBLE_EQ(weak["gives"]["K"].get<double>(), 0.6);
  EXPECT_FALSE(weak.contains("of_due")) << "no levels were given";
  const double ec = planned["feed"]["ec_ms_per_cm_25c"];
  const auto held = feedWith({{"of_plan", {{"K", 0.6}}}, {"ec_setpoint", ec}});
  EXPECT_NEAR(held["feed"]["ec_ms_per_cm_25c"].get<double>(), ec, 1e-6);
  EXPECT_GT(held["strength"].get<double>(), 1.1);
  expectRefused("dose", json::parse(R"({"draw_down": {"of_plan": {"A": -1}}})"), "draw_down.of_plan.A");
  expectRefused("dose", json::parse(R"({"draw_down": {"of_plan": {"Q": 0.5}}})"), "draw_down.of_plan");
  expectRefused("dose", json::parse(R"({"draw_down": {"of_plan": {"A": 0.5}}})"), "products");
}

TEST(DoseCli, WhatCantBeIsNamedOrHasNoAnswer) {
  expectRefused("dose", json::object(), "reservoir");
  auto input = lineReservoir();
  input["reservoir"].erase("ec_water");
  expectRefused("dose", input, "reservoir.ec_water");
  input = lineReservoir();
  input["reservoir"]["volume_l"] = 0;
  expectRefused("dose", input, "reservoir.volume_l");
  input = lineReservoir();
  input["reservoir"]["ec_full_strength"] = 0.4;
  expectRefused("dose", input, "reservoir.ec_full_strength");
  input = lineReservoir();
  input["reservoir"]["ec_target"] = 0.2;
  EXPECT_EQ(cli("dose", input.dump()).code, 3) << "below the water: well-formed, but no answer";
  expectRefused("dose", json::parse(R"({"vessel": {"across_cm": 0, "line_for_l": 10}})"), "vessel.across_cm");
  expectRefused("dose", json::parse(R"({"ratio": {"percent": 0}})"), "ratio.percent");
  expectRefused("dose", json::parse(R"({"readings": [{"ml_per_l": 5, "ec": 1}]})"), "readings");
  expectRefused("dose", json::parse(R"({"draw_down": {"drawn_l": {"A": 2}}})"), "draw_down.drawn_l.B");
  expectRefused("dose", json::parse(R"({"reservoir": {"volume_l": 10, "ec_nwo": 1}})"), "ec_nwo");
}
