/// Drives the real butte-cli program, as a script would.
#include "support/run_cli.h"

#include <gmock/gmock.h>

using namespace butte::test;
using nlohmann::json;
using ::testing::HasSubstr;

namespace {

json example() {
  return json::parse(R"({
    "water": {"ph": 7.6, "temperature_c": 18, "ec_ms_per_cm": 0.52,
      "analysis_mg_per_l": {"Ca": 52, "Mg": 9, "Na": 21, "K": 2, "Cl": 30, "SO4": 28, "HCO3": 166, "NO3": 9}},
    "target_mg_per_l": {"N": 150, "P": 40, "K": 210, "Ca": 120, "Mg": 30, "Fe": 2.0},
    "tolerance_percent": {"default": 5, "Fe": 20},
    "max_mg_per_l": {"Na": 40, "Cl": 60, "N_NH4": 15},
    "products": [
      {"id": "cn", "formula": "Ca(NO3)2·4H2O", "purity_percent": 99, "price_per_kg": 0.9, "tank": "A"},
      {"id": "kno3", "formula": "KNO3", "min_g": 0, "max_g": 800, "tank": {"A": 0.6, "B": 0.4}},
      {"id": "mkp", "formula": "KH2PO4"}, {"id": "epsom", "formula": "MgSO4.7H2O"},
      {"id": "fe", "formula": "C10H12N2NaFeO8·3H2O", "purity_percent": 98},
      {"id": "acid", "formula": "HNO3", "purity_percent": 60, "density_kg_per_l": 1.37, "liquid": true}],
    "alkalinity_left_meq_per_l": 0.4, "volume_l": 1000,
    "stock": {"factor": 100, "temperature_c": 12, "tanks": {"A": {"volume_l": 50}, "B": {"volume_l": 50}}}})");
}

/// Bad input: exit 2, one line on standard error that names the key, nothing on standard output.
void expectRefused(const std::string& verb, const std::string& input, const std::string& named) {
  const auto run = cli(verb, input);
  EXPECT_EQ(run.code, 2) << input << run.out;
  EXPECT_TRUE(run.out.empty()) << run.out;
  EXPECT_THAT(run.err, HasSubstr(named));
  EXPECT_EQ(std::count(run.err.begin(), run.err.end(), '\n'), 1) << run.err;
}

void expectRefused(const std::string& verb, const json& input, const std::string& named) {
  expectRefused(verb, input.dump(), named);
}

} // namespace

TEST(Cli, CompositionAndConvertPrintTheirKeys) {
  const auto composition = cli("composition 'Ca(NO3)2·4H2O'").parsed();
  EXPECT_NEAR(composition["molar_mass_g_per_mol"].get<double>(), 236.146, 1e-3);
  EXPECT_NEAR(composition["mass_fraction"]["N_NO3"].get<double>(), 0.11863, 1e-5);
  EXPECT_NEAR(cli("convert 12 gpg_CaCO3 dH").parsed()["value"].get<double>(), 11.5093, 1e-3);
  EXPECT_NEAR(cli("convert 3 meq/L mg/L Ca").parsed()["value"].get<double>(), 60.117, 1e-6);
  EXPECT_NEAR(cli("convert 38 P2O5 P").parsed()["value"].get<double>(), 16.584, 1e-3);
  EXPECT_NEAR(cli("convert -40 F C").parsed()["value"].get<double>(), -40, 1e-9);
}

TEST(Cli, BadWordsAreRefused) {
  for (const char* words : {"composition 'Ca(NO3'", "composition ''", "convert abc g kg", "convert 1 g L",
                            "convert 1", "convert 1 g kg L m3", "convert '1 lb' L", "nonsense", "",
                            "mix /no/such/file", "convert 1e308 kg mg"}) {
    const auto run = cli(words);
    EXPECT_EQ(run.code, 2) << words;
    EXPECT_TRUE(run.out.empty()) << words;
    EXPECT_EQ(std::count(run.err.begin(), run.err.end(), '\n'), 1) << words << run.err;
  }
}

TEST(Cli, HelpListsVerbsAndKeys) {
  EXPECT_THAT(cli("--help").out, HasSubstr("composition"));
  EXPECT_EQ(cli("--help").code, 0);
  EXPECT_THAT(cli("solve --help").out, HasSubstr("alkalinity_left_meq_per_l"));
  EXPECT_EQ(cli("stock --help").code, 0);
}

TEST(Cli, TheProgramAnswersAsTheCallDoes) {
  for (const char* words : {"solve -", "--help", "convert 12 gpg_CaCO3 dH", "convert 12 gpg_CaCO3 parsec"}) {
    const auto program = cliProcess(words, example().dump());
    const auto call = cli(words, example().dump());
    EXPECT_EQ(program.code, call.code) << words;
    EXPECT_EQ(program.out, call.out) << words;
    EXPECT_EQ(program.err, call.err) << words;
  }
  EXPECT_EQ(cliProcess("convert 1 g kg >/dev/full").code, 2)
      << "an answer that can't be printed is no answer";
}

TEST(Cli, SolvePrintsEveryKeyAndItsOwnMixAgrees) {
  const auto run = cli("solve -", example().dump());
  ASSERT_EQ(run.code, 0) << run.err;
  const auto answer = run.parsed();
  for (const char* key :
       {"status", "weights_g", "elements_mg_per_l", "ions_meq_per_l", "cations_meq_per_l", "anions_meq_per_l",
        "ec_ms_per_cm_25c", "cost", "deviation_percent", "reasons", "warnings"})
    EXPECT_TRUE(answer.contains(key)) << key;
  EXPECT_NEAR(answer["ions_meq_per_l"]["HCO3"].get<double>(), 0.4, 1e-9);
  auto again = example();
  again["weights_g"] = answer["weights_g"];
  for (const char* key : {"target_mg_per_l", "tolerance_percent", "max_mg_per_l"})
    again.erase(key);
  const auto mixed = cli("mix", again.dump()).parsed();
  for (const auto& [key, value] : mixed["elements_mg_per_l"].items())
    EXPECT_NEAR(value.get<double>(), answer["elements_mg_per_l"][key].get<double>(), 1e-9) << key;
}

TEST(Cli, StockPrintsTanksFromASolve) {
  const auto run = cli("stock -", example().dump());
  ASSERT_EQ(run.code, 0) << run.err;
  const auto answer = run.parsed();
  EXPECT_DOUBLE_EQ(answer["dose_ml_per_l"].get<double>(), 10);
  const auto& a = answer["tanks"]["A"];
  for (const char* key : {"g", "g_per_l", "saturation", "solids", "max_factor"})
    EXPECT_TRUE(a.contains(key)) << key;
  EXPECT_NEAR(a["g"]["kno3"].get<double>(), 0.6 * answer["weights_g"]["kno3"].get<double>() / 1000 * 100 * 50,
              1e-6);
  EXPECT_TRUE(a["saturation"]["fe"].is_null()); // one figure at 20 degC only
  EXPECT_TRUE(a["max_factor"].is_null());
  EXPECT_TRUE(answer["tanks"]["B"]["max_factor"].is_number());
  EXPECT_FALSE(answer["tanks"]["A"]["g"].contains("acid"));
  EXPECT_THAT(run.out, HasSubstr("\"not_placed\""));
}

TEST(Cli, TheFirstTankNamedIsTheCalciumSide) {
  auto input = example();
  input["products"][0].erase("tank");
  input["products"][1].erase("tank");
  // Written by hand: a parsed object would sort its keys.
  auto text = input.dump();
  const std::string written = "\"tanks\":{\"A\":{\"volume_l\":50},\"B\":{\"volume_l\":50}}";
  const auto at = text.find(written);
  ASSERT_NE(at, std::string::npos);
  text.replace(at, written.size(), "\"tanks\":{\"Z\":{\"volume_l\":50},\"B\":{\"volume_l\":50}}");
  const auto answer = cli("stock", text).parsed();
  EXPECT_TRUE(answer["tanks"]["Z"]["g"].contains("cn"));
}

TEST(Cli, ImpossibleIsExitThreeWithReasons) {
  auto input = example();
  input["require"] = "bands";
  input["products"].erase(3); // no magnesium
  const auto run = cli("solve", input.dump());
  EXPECT_EQ(run.code, 3);
  EXPECT_EQ(run.parsed()["status"], "impossible");
  EXPECT_FALSE(run.parsed()["reasons"].empty());
}

TEST(Cli, PureWaterAndUnknownWaterAreSaid) {
  auto input = example();
  input.erase("water");
  EXPECT_THAT(cli("solve", input.dump()).out, HasSubstr("\"water_pure\""));
  input["water"] = {{"ec_ms_per_cm", 0.5}};
  EXPECT_THAT(cli("solve", input.dump()).out, HasSubstr("\"water_ec_only\""));
}

TEST(Cli, TheSameInputGivesTheSameBytes) {
  EXPECT_EQ(cli("solve", example().dump()).out, cli("solve", example().dump()).out);
}

TEST(Cli, EveryTypingErrorIsNamed) {
  const auto with = [](const std::string& pointer, const json& value) {
    auto input = example();
    input[json::json_pointer(pointer)] = value;
    return input;
  };
  expectRefused("solve", with("/watr", 1), "watr");
  expectRefused("solve", with("/water/pH", 7), "water.pH");
  expectRefused("solve", with("/water/analysis_mg_per_l/CaO", 3), "water.analysis_mg_per_l.CaO");
  expectRefused("solve", with("/water/analysis_mg_per_l/Ca", "52"), "water.analysis_mg_per_l.Ca");
  expectRefused("solve", with("/water/analysis_mg_per_l/Ca", -52), "water.analysis_mg_per_l.Ca");
  expectRefused("solve", with("/products/0/formula", "Ca(NO3"), "products[0].formula");
  expectRefused("solve", with("/products/0/purity_percent", 0), "products[0].purity_percent");
  expectRefused("solve", with("/products/0/purity", 99), "products[0].purity");
  expectRefused("solve", with("/products/0/label_percent", {{"Ca", 19}}), "products[0].label_percent");
  expectRefused("solve", with("/products/0/price_per_kg", -1), "products[0].price_per_kg");
  expectRefused("solve", with("/products/1/id", "cn"), "products[1].id");
  expectRefused("solve", with("/products/1/min_g", 900), "products[1].max_g");
  expectRefused("stock", with("/products/0/tank", "C"), "products[0].tank");
  expectRefused("stock", with("/products/1/tank", {{"A", 0.6}, {"B", 0.6}}), "products[1].tank");
  expectRefused("solve", with("/target_mg_per_l/Kalium", 3), "target_mg_per_l.Kalium");
  expectRefused("solve", with("/target_mg_per_l/K", -3), "target_mg_per_l.K");
  expectRefused("solve", with("/tolerance_percent/Zn", 3), "tolerance_percent.Zn");
  expectRefused("solve", with("/weight/Xx", 3), "weight.Xx");
  expectRefused("solve", with("/max_mg_per_l/Xx", 3), "max_mg_per_l.Xx");
  expectRefused("solve", with("/objective", "nearest"), "objective");
  expectRefused("solve", with("/objective", "cheapest"), "price_per_kg");
  expectRefused("solve", with("/require", true), "require");
  expectRefused("solve", with("/locked", {"cn"}), "weights_g.cn");
  expectRefused("solve", with("/weights_g", {{"nobody", 1}}), "weights_g.nobody");
  expectRefused("solve", with("/volume_l", 0), "volume_l");
  expectRefused("stock", with("/stock/factor", -100), "stock.factor");
  expectRefused("stock", with("/stock/tanks/A/volume", 1), "stock.tanks.A.volume");
  expectRefused("solve", with("/alkalinity_left_meq_per_l", -1), "alkalinity_left_meq_per_l");
  auto noTarget = example();
  noTarget.erase("target_mg_per_l");
  noTarget.erase("tolerance_percent");
  expectRefused("solve", noTarget, "target_mg_per_l");
  expectRefused("stock", noTarget, "weights_g");
  expectRefused("mix", example(), "weights_g");
}

TEST(Cli, BrokenTextIsRefused) {
  expectRefused("mix", std::string("{\"water\": {"), "input");
  expectRefused("mix", std::string("[1,2]"), "input");
  expectRefused("mix", std::string(), "input");
  expectRefused("mix", std::string("{\"volume_l\": 1, \"volume_l\": 2}"), "volume_l");
  expectRefused("mix", std::string("{\"volume_l\": 1e999}"), "input");
  expectRefused("mix", std::string("{\"volume_l\": \"\xff\xfe\"}"), "input");
  expectRefused("mix", "{\"volume_l\": -" + std::string(200, '9') + "}", "volume_l");
}

TEST(Cli, KeysThatStartWithXAreTheScriptsOwn) {
  auto input = example();
  input["x_note"] = "mine";
  input["water"]["x_lab"] = 7;
  EXPECT_EQ(cli("solve", input.dump()).code, 0);
}
