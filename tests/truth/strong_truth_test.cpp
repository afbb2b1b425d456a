// Stocks against PHREEQC with pitzer.dat, handbook solubilities and Laliberte's densities
// (tests/data/truth/README.md).
#include "solution/pitzer.h"
#include "truth_table.h"

#include <cmath>

using namespace butte::test;
using namespace butte::core;

namespace {

double numberIn(const std::map<std::string, std::string>& row, const std::string& column) {
  return std::stod(row.at(column));
}

/// One tank of ten litres, each product's weight times the factor in every litre.
Json tankOf(const std::map<std::string, double>& gramsAtFactorOne, double celsius, double factor) {
  auto question = oneLitre(gramsAtFactorOne);
  for (auto& product : question["products"])
    product["tank"] = "A";
  question["stock"] = {
      {"factor", factor}, {"temperature_c", celsius}, {"tanks", {{"A", {{"volume_l", 10}}}}}};
  return answerTo("stock", question)["tanks"]["A"];
}

bool isOfWellKnownIons(const Json& mix) {
  for (const auto& [salt, grams] : mix.items()) {
    for (const char* ion : {"NO3", "PO4", "NH4"}) {
      if (salt.find(ion) != std::string::npos) return false;
    }
  }
  return true;
}

std::map<std::string, double> scaled(std::map<std::string, double> grams, double by) {
  for (auto& [salt, g] : grams)
    g *= by;
  return grams;
}

PitzerSolution pitzerSolution(const Json& molPerKg) {
  const std::map<std::string, std::string> species{{"K", "K+"},    {"Na", "Na+"},    {"Mg", "Mg+2"},
                                                   {"Ca", "Ca+2"}, {"NH4", "NH4+"},  {"NO3", "NO3-"},
                                                   {"Cl", "Cl-"},  {"SO4", "SO4-2"}, {"H2PO4", "H2PO4-"}};
  PitzerSolution out;
  for (const auto& [ion, mol] : molPerKg.items()) {
    if (const auto cation = pitzerCation(species.at(ion))) out.cations[*cation] = mol;
    if (const auto anion = pitzerAnion(species.at(ion))) out.anions[*anion] = mol;
  }
  return out;
}

/// ln of the activity of an ion of the table's names with its count, "K2" or "SO4": the count and the ln.
struct Counted {
  double count = 1, ln = 0;
};
Counted countedActivity(const std::string& text, const PitzerSolution& solution, const PitzerActivities& at) {
  for (const auto& [name, species, z] : {std::tuple{"K", "K+", 1},
                                         {"Na", "Na+", 1},
                                         {"Mg", "Mg+2", 2},
                                         {"Ca", "Ca+2", 2},
                                         {"NH4", "NH4+", 1},
                                         {"NO3", "NO3-", 1},
                                         {"Cl", "Cl-", 1},
                                         {"SO4", "SO4-2", 2},
                                         {"H2PO4", "H2PO4-", 1}}) {
    const std::string ion = name;
    const bool twice = text == ion + "2";
    if (text != ion && !twice) continue;
    Counted out{twice ? 2.0 : 1.0, 0};
    if (const auto c = pitzerCation(species)) out.ln = std::log(solution.cations[*c]) + at.lnCation[*c];
    if (const auto a = pitzerAnion(species)) out.ln = std::log(solution.anions[*a]) + at.lnAnion[*a];
    return out;
  }
  ADD_FAILURE() << text << " is no ion of the table";
  return {};
}

} // namespace

TEST(TruthStrong, WhereTheFirstSolidOfAMixedStockBegins) {
  for (const auto& row : truthLines("stocks.jsonl")) {
    const auto mix = row["mix_g"].get<std::map<std::string, double>>();
    const auto tank = tankOf(scaled(mix, 0.001), row["temperature_c"], 100);
    ASSERT_TRUE(tank["max_factor"].is_number()) << row;
    double sum = 0;
    for (const auto& [salt, grams] : mix)
      sum += grams / 1000;
    const double got = tank["max_factor"].get<double>() * sum, wanted = row["total_g_per_l"];
    EXPECT_NEAR(got / wanted, 1, isOfWellKnownIons(row["mix_g"]) ? 0.05 : 0.10)
        << row["first"] << " of " << row["mix_g"] << " at " << row["temperature_c"];
  }
}

TEST(TruthStrong, OneSaltAtSaturation) {
  for (const auto& row : truthRows("saturation.csv")) {
    const auto tank = tankOf({{row.at("formula_as_sold"), 1}}, numberIn(row, "temperature_c"), 100);
    ASSERT_TRUE(tank["max_factor"].is_number()) << row.at("formula_as_sold");
    EXPECT_NEAR(tank["max_factor"].get<double>() / numberIn(row, "g_as_sold_per_l_of_solution"), 1, 0.02)
        << row.at("formula_as_sold") << " at " << row.at("temperature_c");
  }
}

TEST(TruthStrong, DensityOfOneSalt) {
  for (const auto& row : truthRows("density_single.csv")) {
    const double grams = numberIn(row, "g_as_sold_per_l_of_solution");
    const auto tank =
        tankOf({{row.at("formula_as_sold"), grams / 1000}}, numberIn(row, "temperature_c"), 1000);
    EXPECT_NEAR(tank["density_kg_per_l"].get<double>() / numberIn(row, "density_kg_per_l"), 1, 0.005)
        << grams << " g/L of " << row.at("formula_as_sold") << " at " << row.at("temperature_c");
  }
}

TEST(TruthStrong, DensityOfMixtures) {
  for (const auto& row : truthRows("density_mixed.csv")) {
    std::map<std::string, double> mix;
    std::istringstream parts(row.at("g_as_sold_per_l_of_solution"));
    for (std::string part; std::getline(parts, part, ';');)
      mix[part.substr(0, part.find('='))] = std::stod(part.substr(part.find('=') + 1)) / 1000;
    const auto tank = tankOf(mix, numberIn(row, "temperature_c"), 1000);
    EXPECT_NEAR(tank["density_kg_per_l"].get<double>() / numberIn(row, "density_kg_per_l"), 1, 0.005)
        << row.at("g_as_sold_per_l_of_solution");
  }
}

// Up to 0.6 mol/kg of the salt: from the dilute model through both into Pitzer's.
TEST(TruthStrong, GypsumInSaltSolutions) {
  for (const auto& row : truthRows("gypsum.csv")) {
    const double mol = numberIn(row, "mol_salt_per_kg_water");
    if (mol > 0.6) continue;
    std::map<std::string, double> grams{
        {"CaSO4", numberIn(row, "gypsum_dissolved_mmol_per_kg_water") / 1000 * gramsPerMole("CaSO4")}};
    const auto& salt = row.at("salt");
    if (!salt.empty()) grams[salt] += mol * gramsPerMole(salt);
    auto question = oneLitre(grams);
    question["temperature_c"] = numberIn(row, "temperature_c");
    question["co2"] = "closed";
    const auto index = answerTo("equilibrium", question)["saturation_index"]["gypsum"];
    ASSERT_TRUE(index.is_number());
    EXPECT_NEAR(index.get<double>(), 0, 0.06)
        << mol << " mol/kg of " << salt << " at " << row.at("temperature_c");
  }
}

// The equations by themselves: the same parameters, without pairs, acids or a passage between two models.
TEST(TruthStrong, PitzersEquations) {
  for (const auto& row : truthLines("activities.jsonl")) {
    const auto solution = pitzerSolution(row["mol_per_kg_water"]);
    const auto at = PitzerModel::at(row["temperature_c"].get<double>()).activities(solution);
    EXPECT_NEAR(at.lnWater / std::log(10.0), std::log10(row["water_activity"].get<double>()), 0.001) << row;
    for (const auto& [salt, wanted] : row["log10_activity_product"].items()) {
      const auto plus = salt.find('+');
      const auto a = countedActivity(salt.substr(0, plus), solution, at);
      const auto b = countedActivity(salt.substr(plus + 1), solution, at);
      EXPECT_NEAR((a.count * a.ln + b.count * b.ln) / std::log(10.0), wanted.get<double>(), 0.003)
          << salt << " in " << row["mol_per_kg_water"];
    }
  }
}
