/// The modes of `solve`, through the real butte-cli program.
#include "support/run_cli.h"

#include <filesystem>
#include <fstream>
#include <gmock/gmock.h>
#include <sstream>
#include <sys/stat.h>

using namespace butte::test;
using nlohmann::json;
using ::testing::HasSubstr;

namespace {

json fourSalts() {
  return json::parse(R"({
    "products": [{"id": "cn", "formula": "Ca(NO3)2·4H2O"}, {"id": "kn", "formula": "KNO3"},
                 {"id": "mkp", "formula": "KH2PO4"}, {"id": "mgs", "formula": "MgSO4·7H2O"}],
    "target_mg_per_l": {"N": 200, "P": 40, "K": 220, "Ca": 170, "Mg": 45}, "volume_l": 100})");
}

} // namespace

TEST(SolveModes, RatiosAndBandsFirst) {
  auto input = fourSalts();
  input["ratios"] = {
      {{"above", {"K"}}, {"below", {"Ca", "Mg"}}, {"value", 0.45}, {"basis", "equivalents"}, {"weight", 5}}};
  input["require"] = "bands_first";
  const auto out = cli("solve", input.dump()).parsed();
  EXPECT_NEAR(out["ratios"][0].get<double>(), 0.45, 0.05);
  EXPECT_TRUE(out.contains("limits"));
}

TEST(SolveModes, FromTheCatalogueSaysWhatToBuy) {
  auto input = fourSalts();
  input["products"].erase(3);
  input["products_from"] = "catalogue";
  const auto out = cli("solve", input.dump()).parsed();
  EXPECT_EQ(out["status"], "met");
  EXPECT_EQ(out["buy"].size(), 1u) << out["buy"].dump();
  EXPECT_TRUE(out["proven"].get<bool>());
}

TEST(SolveModes, MendsRoundingAndErrorsInOneGo) {
  auto input = fourSalts();
  input["products"].erase(3);
  input["mends"] = true;
  input["round_to_g"] = {{"default", 1}, {"kn", 5}};
  input["errors"] = {{"weighing_g", {{"default", 0.5}}}};
  const auto out = cli("solve", input.dump()).parsed();
  ASSERT_FALSE(out["mends"].empty());
  EXPECT_EQ(out["mends"][0]["kind"], "add_product");
  EXPECT_LT(out["mends"][0]["off_band_after"].get<int>(), out["mends"][0]["off_band_before"].get<int>());
  EXPECT_NEAR(std::fmod(out["rounded"]["weights_g"]["kn"].get<double>(), 5), 0, 1e-9);
  EXPECT_LE(out["rounded"]["misfit"].get<double>(),
            out["rounded"]["misfit_one_by_one"].get<double>() + 1e-12);
  EXPECT_GT(out["plus_minus"]["elements_mg_per_l"]["K"]["plus_minus"].get<double>(), 1);
  EXPECT_GT(out["plus_minus"]["ec_ms_per_cm_25c"]["plus_minus"].get<double>(), 0.005);
}

TEST(SolveModes, AnAuditFindsTheWrongLine) {
  auto input = fourSalts();
  const auto right = cli("solve", input.dump()).parsed();
  input["mode"] = "audit";
  input["weights_g"] = right["weights_g"];
  EXPECT_TRUE(cli("solve", input.dump()).parsed()["suspects"].empty());
  input["weights_g"]["mkp"] = right["weights_g"]["mkp"].get<double>() * 10;
  const auto out = cli("solve", input.dump()).parsed();
  EXPECT_EQ(out["suspects"][0]["product"], "mkp");
  EXPECT_EQ(out["suspects"][0]["slip"], "decimal_point");
  input.erase("weights_g");
  EXPECT_THAT(cli("solve", input.dump()).err, HasSubstr("weights_g"));
}

TEST(SolveModes, OneSetOfStocksForTwoCrops) {
  auto input = fourSalts();
  auto weaker = input["target_mg_per_l"];
  for (auto& figure : weaker)
    figure = figure.get<double>() / 2;
  input["crops"] = {{{"name", "strong"}, {"target_mg_per_l", input["target_mg_per_l"]}},
                    {{"name", "weak"}, {"target_mg_per_l", weaker}}};
  input.erase("target_mg_per_l");
  const auto out = cli("solve", input.dump()).parsed();
  EXPECT_NEAR(out["crops"][1]["strength"].get<double>(), 0.5, 0.02);
  EXPECT_GE(out["crops"][1]["misfit"].get<double>(), out["crops"][1]["own_misfit"].get<double>() - 1e-9);
}

TEST(SolveModes, ABatchWritesEveryTargetWithEveryWater) {
  auto input = fourSalts();
  input["targets"] = {{{"name", "strong"}, {"target_mg_per_l", input["target_mg_per_l"]}},
                      {{"name", "=weak, \"half\""}, {"target_mg_per_l", {{"N", 100}, {"K", 110}}}}};
  input["waters"] = {{{"name", "rain"}, {"analysis_mg_per_l", {{"Ca", 1}}}},
                     {{"name", "bore"}, {"analysis_mg_per_l", {{"Ca", 80}, {"HCO3", 240}}}}};
  const std::string file = "/tmp/butte-batch-" + std::to_string(getpid()) + ".csv";
  const auto run = cli("solve --progress --out " + file, input.dump());
  ASSERT_EQ(run.code, 0) << run.err;
  EXPECT_EQ(run.parsed()["lines"], 4);
  EXPECT_THAT(run.err, HasSubstr("4 of 4"));
  std::istringstream lines(slurp(file));
  std::string line;
  std::getline(lines, line);
  EXPECT_THAT(line, ::testing::StartsWith("target,water,status,ec_ms_per_cm_25c"));
  std::getline(lines, line);
  EXPECT_THAT(line, ::testing::StartsWith("strong,rain,"));
  std::getline(lines, line);
  std::getline(lines, line);
  EXPECT_THAT(line, ::testing::StartsWith("\"'=weak, \"\"half\"\"\",rain,"))
      << "no formula for a spreadsheet";
  std::remove(file.c_str());
  EXPECT_EQ(cli("solve --out /nowhere/x.csv", input.dump()).code, 2);
  input.erase("waters");
  EXPECT_THAT(cli("solve --out " + file, input.dump()).err, HasSubstr("waters"));
}

// Only a file gives way to a new table: no device, no pipe, nothing that a link leads to.
TEST(SolveModes, ABatchReplacesFilesAlone) {
  auto input = fourSalts();
  input["targets"] = {{{"name", "strong"}, {"target_mg_per_l", input["target_mg_per_l"]}}};
  input["waters"] = {{{"name", "rain"}, {"analysis_mg_per_l", {{"Ca", 1}}}}};
  const auto folder = std::filesystem::temp_directory_path() / ("butte-out-" + std::to_string(getpid()));
  std::filesystem::create_directories(folder);
  const auto file = (folder / "table.csv").string(), diary = (folder / "diary").string(),
             pipe = (folder / "pipe").string();
  EXPECT_EQ(cli("solve --out " + file, input.dump()).code, 0);
  const auto table = slurp(file);
  EXPECT_EQ(cli("solve --out " + file, input.dump()).code, 0) << "a file is replaced";
  EXPECT_EQ(slurp(file), table);
  std::ofstream(diary) << "dear diary";
  std::filesystem::create_symlink(diary, folder / "link.csv");
  ASSERT_EQ(::mkfifo(pipe.c_str(), 0600), 0);
  for (const auto& out : {(folder / "link.csv").string(), pipe, std::string("/dev/full"), folder.string()}) {
    const auto run = cli("solve --out " + out, input.dump());
    EXPECT_EQ(run.code, 2) << out;
    EXPECT_THAT(run.err, HasSubstr("can't be written")) << out;
  }
  EXPECT_EQ(slurp(diary), "dear diary");
  EXPECT_TRUE(std::filesystem::is_character_file("/dev/full"));
  std::size_t left = 0;
  for ([[maybe_unused]] const auto& entry : std::filesystem::directory_iterator(folder))
    ++left;
  EXPECT_EQ(left, 4u) << "no unfinished table stays behind";
  EXPECT_THAT(cli("solve " + pipe).err, HasSubstr("device or a pipe")) << "a script is a file as well";
  EXPECT_THAT(cli("solve " + folder.string()).err, HasSubstr("is a folder"));
  std::filesystem::remove_all(folder);
}

TEST(SolveModes, BadInputIsNamed) {
  const std::pair<const char*, const char*> cases[] = {
      {R"("ratios": [{"above": ["K"], "below": ["Xx"], "value": 1}])", "ratios[0].below"},
      {R"("ratios": [{"above": ["K"], "below": ["Ca"], "value": 0}])", "ratios[0].value"},
      {R"("ratios": [{"above": ["Si"], "below": ["B"], "value": 1}])", "ratios[0]"},
      {R"("at_most_products": 1.5)", "at_most_products"},
      {R"("products_from": "shop")", "products_from"},
      {R"("mode": "guess")", "mode"},
      {R"("round_to_g": {"salt": 1})", "round_to_g.salt"},
      {R"("errors": {"volume_percent": 101})", "errors.volume_percent"},
      {R"("crops": [{"name": "x"}])", "crops[0].target_mg_per_l"},
      {R"("crops": [{"target_mg_per_l": {"Q": 1}}])", "crops[0].target_mg_per_l.Q"},
  };
  for (const auto& [keys, named] : cases) {
    auto text = fourSalts().dump();
    text.insert(text.size() - 1, std::string(",") + keys);
    const auto run = cli("solve", text);
    EXPECT_EQ(run.code, 2) << keys;
    EXPECT_THAT(run.err, HasSubstr(named)) << keys;
  }
}
