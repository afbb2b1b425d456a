// Scripts under attack, leaf by leaf: whatever one key of a good input is turned into, the answer is an
// answer or a refusal of one line that names the key; never a crash, never a figure taken from something that
// is none.
#include "support/run_cli.h"

#include <gmock/gmock.h>

using namespace butte::test;
using nlohmann::json;

namespace {

json wholeInput() {
  return json::parse(R"({
    "water": {"ph": 7.4, "temperature_c": 14, "ec_ms_per_cm": 0.45,
              "analysis_mg_per_l": {"Ca": 60, "Mg": 9, "Na": 12, "Cl": 20, "SO4": 30, "HCO3": 180}},
    "products": [
      {"id": "cn", "formula": "Ca(NO3)2·4H2O", "price_per_kg": 0.9},
      {"id": "kno3", "formula": "KNO3", "purity_percent": 99, "min_g": 0, "max_g": 900, "tank": "A", "price_per_kg": 1.3},
      {"id": "mkp", "formula": "KH2PO4", "price_per_kg": 1.9},
      {"id": "epsom", "formula": "MgSO4·7H2O", "tank": {"B": 1}, "price_per_kg": 0.5},
      {"id": "blend", "label_percent": {"N_NO3": 4, "P2O5": 18, "K2O": 38}, "price_per_kg": 3},
      {"id": "acid", "formula": "HNO3", "purity_percent": 60, "density_kg_per_l": 1.37, "price_per_kg": 0.8}],
    "weights_g": {"cn": 500, "kno3": 300},
    "target_mg_per_l": {"N_NO3": 150, "K": 200, "Ca": 140, "Mg": 30, "P": 35},
    "tolerance_percent": {"K": 7},
    "weight": {"K": 2},
    "max_mg_per_l": {"Cl": 60},
    "alkalinity_left_meq_per_l": 0.5,
    "volume_l": 1000,
    "temperature_c": 20,
    "stock": {"factor": 100, "temperature_c": 8, "tanks": {"A": {"volume_l": 100}, "B": {"volume_l": 100}}},
    "scale": {"readability_g": 0.5, "capacity_g": 3000},
    "run": {"vessels": [{"name": "A", "volume_l": 100, "factor": 100, "weights_g": {"cn": 500, "kno3": 300}}],
            "events": [{"at_s": 1, "by": "K.T.", "did": "poured", "vessel": "A", "volume_l": 50},
                       {"at_s": 2, "did": "weighed", "product": "cn", "g": 501, "lot": "L1"},
                       {"at_s": 3, "did": "tipped", "product": "cn", "vessel": "A"},
                       {"at_s": 4, "did": "read", "vessel": "A", "ec_ms_per_cm": 1.2, "ph": 6}]}
  })");
}

void leavesOf(const json& node, const json::json_pointer& at, std::vector<json::json_pointer>& out) {
  if (!node.is_structured()) return out.push_back(at);
  for (const auto& [key, value] : node.items())
    leavesOf(value, node.is_array() ? at / std::stoul(key) : at / key, out);
}

std::vector<json::json_pointer> leavesOf(const json& node) {
  std::vector<json::json_pointer> out;
  leavesOf(node, json::json_pointer(), out);
  return out;
}

void expectAnswerOrRefusal(const char* verb, const json& input, const std::string& what) {
  const auto run = cli(verb, input.dump());
  EXPECT_TRUE(run.code == 0 || run.code == 2 || run.code == 3) << what;
  if (run.code == 2) {
    EXPECT_TRUE(run.out.empty()) << what << ": a refusal prints no answer";
    EXPECT_EQ(std::count(run.err.begin(), run.err.end(), '\n'), 1) << what << run.err;
    EXPECT_NE(run.err.find(": "), std::string::npos) << what << ": no key is named: " << run.err;
  } else {
    EXPECT_TRUE(json::accept(run.out)) << what;
    EXPECT_EQ(run.out.find("nan"), std::string::npos) << what << ": an answer holds no figure that is none";
    EXPECT_EQ(run.out.find("inf\""), std::string::npos) << what;
  }
}

} // namespace

TEST(ScriptLeaves, TheWholeInputIsAnswered) {
  for (const char* verb : {"mix", "solve", "stock", "equilibrium", "weigh", "run"}) {
    const auto run = cli(verb, wholeInput().dump());
    EXPECT_EQ(run.code, 0) << verb << run.err;
  }
}

TEST(ScriptLeaves, AnythingInAnyPlaceIsAnsweredOrRefusedByName) {
  const json junk[] = {nullptr,       true,           "ten",           "", -1, 0, 1e308,
                       json::array(), json::object(), json::array({1})};
  int refused = 0;
  for (const auto& leaf : leavesOf(wholeInput())) {
    for (const auto& value : junk) {
      auto input = wholeInput();
      input[leaf] = value;
      const auto what = leaf.to_string() + " = " + value.dump();
      expectAnswerOrRefusal("solve", input, what);
      refused += cli("mix", input.dump()).code == 2;
      if (leaf.to_string().find("/run") == 0) expectAnswerOrRefusal("run", input, what);
    }
  }
  EXPECT_GT(refused, 200);
}

TEST(ScriptLeaves, AWordInTheFiguresPlaceIsRefusedWithItsKey) {
  for (const auto& leaf : leavesOf(wholeInput())) {
    if (!wholeInput()[leaf].is_number()) continue;
    auto input = wholeInput();
    input[leaf] = "ten";
    const auto run = cli("solve", input.dump());
    EXPECT_EQ(run.code, 2) << leaf.to_string();
    EXPECT_NE(run.err.find(leaf.back()), std::string::npos) << leaf.to_string() << ": " << run.err;
  }
}

TEST(ScriptLeaves, AnyKeyTakenAwayIsAnsweredOrRefused) {
  for (const auto& leaf : leavesOf(wholeInput())) {
    auto input = wholeInput();
    auto& parent = input[leaf.parent_pointer()];
    if (parent.is_array())
      parent.erase(std::stoul(leaf.back()));
    else
      parent.erase(leaf.back());
    for (const char* verb : {"solve", "stock", "mix", "run"})
      expectAnswerOrRefusal(verb, input, std::string(verb) + " without " + leaf.to_string());
  }
}
