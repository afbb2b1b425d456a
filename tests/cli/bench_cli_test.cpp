/// The bench by script: a scale's lines, weights in its steps, a run replayed from its events.
#include "run/run_state.h"
#include "script_input.h"
#include "script_run.h"
#include "support/run_cli.h"

#include <gmock/gmock.h>

using namespace butte::test;
using butte::core::runState;
using nlohmann::json;
using ::testing::HasSubstr;

namespace {

json bench() {
  return json::parse(R"({
    "products": [{"id": "cn", "formula": "Ca(NO3)2·4H2O"}, {"id": "kno3", "formula": "KNO3"},
                 {"id": "epsom", "formula": "MgSO4·7H2O"}],
    "scale": {"readability_g": 0.1, "capacity_g": 5000},
    "run": {
      "vessels": [{"name": "A", "volume_l": 10, "factor": 100, "weights_g": {"cn": 800, "kno3": 100}},
                  {"name": "B", "volume_l": 10, "factor": 100, "weights_g": {"epsom": 400, "kno3": 200}}],
      "events": [
        {"at_s": 0, "by": "K.T.", "did": "poured", "vessel": "A", "volume_l": 5},
        {"at_s": 60, "by": "K.T.", "did": "weighed", "product": "cn", "g": 500, "lot": "L1"},
        {"at_s": 70.5, "by": "K.T.", "did": "weighed", "product": "cn", "g": 380, "lot": "L2", "typed": true},
        {"at_s": 80, "did": "taken_out", "product": "cn", "g": 79},
        {"at_s": 90, "did": "tipped", "product": "cn", "vessel": "A"},
        {"at_s": 400, "did": "clear", "product": "cn", "vessel": "A"},
        {"at_s": 410, "did": "handed_over", "to": "M.A."},
        {"at_s": 420, "did": "read", "vessel": "A", "ec_ms_per_cm": 1.2, "ph": 5.9}]}})");
}

} // namespace

TEST(BenchCli, ReadsAScalesLines) {
  const auto out =
      cli("scale-lines", "ST,GS,+   1.500kg\r\nUS,NT,-  0.50lb\n\nErr 3\nS I\n1.5 kg 1.6 kg\n").parsed();
  const auto& readings = out["readings"];
  ASSERT_EQ(readings.size(), 6u);
  EXPECT_EQ(readings[0],
            json::parse(R"({"grams": 1500.0, "unit": "kg", "stable": true, "status": "weight"})"));
  EXPECT_NEAR(readings[1]["grams"].get<double>(), -226.796185, 1e-9); // 0.45359237 kg to the pound
  EXPECT_EQ(readings[1]["stable"], false);
  EXPECT_EQ(readings[2]["status"], "nothing");
  EXPECT_EQ(readings[3]["status"], "fault");
  EXPECT_EQ(readings[4]["status"], "busy");
  EXPECT_TRUE(readings[5]["grams"].is_null()) << "a wrong weight is worse than none";
}

TEST(BenchCli, AScaleOfOnesOwnIsReadByItsPattern) {
  const auto out = cli("scale-lines --pattern '{any};{weight:g}'", "W7;12,5\n");
  EXPECT_NEAR(out.parsed()["readings"][0]["grams"].get<double>(), 12.5, 1e-12);
  const auto refused = cli("scale-lines --pattern '{weight}'", "x\n");
  EXPECT_EQ(refused.code, 2);
  EXPECT_THAT(refused.err, HasSubstr("pattern"));
}

TEST(BenchCli, WeighsInTheStepsOfTheScale) {
  auto input = json::parse(R"({"products": [{"id": "k", "formula": "KNO3"}], "weights_g": {"k": 12.34},
                               "volume_l": 10, "scale": {"readability_g": 0.1, "capacity_g": 5}})");
  const auto out = cli("weigh", input.dump()).parsed();
  EXPECT_EQ(out["steps"][0]["product"], "k");
  EXPECT_NEAR(out["steps"][0]["g"].get<double>(), 12.3, 1e-9);
  EXPECT_EQ(out["steps"][0]["loads"], 3);
  // 39.098 of 101.103 g/mol is potassium (IUPAC).
  EXPECT_NEAR(out["elements_mg_per_l"]["K"].get<double>(), 1230 * 39.098 / 101.103, 0.05);
  EXPECT_NEAR(out["error_percent"]["k"].get<double>(), 100 * 3 * 0.05 / 12.34, 1e-6);
  input.erase("scale");
  EXPECT_THAT(cli("weigh", input.dump()).err, HasSubstr("scale"));
}

TEST(BenchCli, ReplaysARun) {
  const auto out = cli("run", bench().dump()).parsed();
  EXPECT_EQ(out["next"]["phase"], "weigh");
  EXPECT_EQ(out["next"]["product"], "kno3");
  EXPECT_EQ(out["who"], "M.A.");
  EXPECT_NEAR(out["vessels"]["A"]["weights_g"]["cn"].get<double>(), 801, 1e-9);
  EXPECT_NEAR(out["lots"][1]["g"].get<double>(), 301, 1e-9);
  // 40.078 of 236.15 g/mol is calcium; 801 g in 10 L at 1:100 is 0.801 g in a litre of feed.
  EXPECT_NEAR(out["elements_mg_per_l"]["Ca"].get<double>(), 801 * 40.078 / 236.15, 0.1);
  EXPECT_NEAR(out["deviations"][0]["percent"].get<double>(), 0.125, 1e-9);
  EXPECT_TRUE(out["overshoots"].empty());
  auto over = bench();
  over["run"]["events"].erase(3);
  over["run"]["events"].erase(3);
  over["run"]["events"].erase(3);
  const auto told = cli("run", over.dump()).parsed();
  EXPECT_EQ(told["next"]["phase"], "decide");
  EXPECT_NEAR(told["overshoots"][0]["rescale_ratio"].get<double>(), 1.1, 1e-9);
}

TEST(BenchCli, AnEventThatCanNotBeIsNamed) {
  const auto refused = [](const json& event, const char* named) {
    auto input = bench();
    input["run"]["events"].push_back(event);
    const auto out = cli("run", input.dump());
    EXPECT_EQ(out.code, 2) << event;
    EXPECT_THAT(out.err, HasSubstr(named)) << event;
  };
  refused({{"did", "danced"}}, "run.events[8].did");
  refused({{"did", "tipped"}, {"product", "kno3"}, {"vessel", "A"}}, "run.events[8].product");
  refused({{"did", "weighed"}, {"product", "salt"}, {"g", 3}}, "run.events[8].product");
  refused({{"did", "weighed"}, {"product", "cn"}}, "run.events[8].g");
  refused({{"did", "poured"}, {"vessel", "C"}, {"volume_l", 3}}, "run.events[8].vessel");
  refused({{"did", "read"}, {"vessel", "A"}, {"ph", 15}}, "run.events[8].ph");
  refused({{"did", "struck"}, {"event", 40}}, "run.events[8].event");
  refused({{"did", "paused"}, {"why", "rain"}}, "run.events[8].why");
}

// What is written is read back the same.
TEST(BenchCli, EventsGoToTextAndBack) {
  const auto input = butte::exchange::readScriptInput(bench().dump());
  ASSERT_TRUE(static_cast<bool>(input));
  const auto& plan = input->run->plan;
  namespace did = butte::core::did;
  auto events = input->run->events;
  for (const butte::core::RunDeed& deed :
       std::vector<butte::core::RunDeed>{did::Skipped{1, 0}, did::Accepted{1, 0}, did::Rescaled{1.1},
                                         did::ToppedUp{1, butte::core::Volume::fromLitres(9.5)},
                                         did::Paused{}, did::Resumed{}, did::Struck{3}, did::Finished{}})
    events.push_back({1234567, "M.A.", deed});
  for (const auto& event : events) {
    const auto back = butte::exchange::runEventFromJson(butte::exchange::toJson(event, plan), "event", plan);
    ASSERT_TRUE(static_cast<bool>(back)) << butte::exchange::toJson(event, plan);
    EXPECT_EQ(*back, event);
  }
}
