// Published buffers and conductivities, and plain salts against PHREEQC with minteq.v4.dat.
#include "truth_table.h"

using namespace butte::test;

namespace {

double phOf(const std::map<std::string, double>& gramsPerLitre, double celsius) {
  auto question = oneLitre(gramsPerLitre);
  question["temperature_c"] = celsius;
  question["co2"] = "closed";
  return answerTo("equilibrium", question)["ph"].get<double>();
}

double microsiemens(const std::string& salt, double millimoles) {
  const auto question = oneLitre({{salt, millimoles * gramsPerMole(salt) / 1000}});
  return answerTo("mix", question)["ec_ms_per_cm_25c"].get<double>() * 1000;
}

} // namespace

// IUPAC 2002 (Buck and others, Pure Appl. Chem. 74, 2169), from memory.
TEST(TruthPublished, BuffersFrom5To30Degrees) {
  const double celsius[] = {5, 10, 15, 20, 25, 30};
  const struct {
    std::map<std::string, double> millimoles;
    double ph[6];
    double within;
  } buffers[] = {
      {{{"KH2PO4", 25}, {"Na2HPO4", 25}}, {6.951, 6.923, 6.900, 6.881, 6.865, 6.853}, 0.04},
      {{{"KH2PO4", 8.695}, {"Na2HPO4", 30.43}}, {7.500, 7.472, 7.448, 7.429, 7.413, 7.400}, 0.04},
      {{{"NaHCO3", 25}, {"Na2CO3", 25}}, {10.245, 10.179, 10.118, 10.062, 10.012, 9.966}, 0.04},
      {{{"KH2C6H5O7", 50}}, {3.840, 3.820, 3.802, 3.788, 3.776, 3.766}, 0.04},
      {{{"Na2B4O7·10H2O", 10}}, {9.395, 9.332, 9.276, 9.225, 9.180, 9.139}, 0.05},
  };
  for (const auto& buffer : buffers) {
    std::map<std::string, double> grams;
    for (const auto& [salt, amount] : buffer.millimoles)
      grams[salt] = amount * gramsPerMole(salt) / 1000;
    for (int i = 0; i < 6; ++i)
      EXPECT_NEAR(phOf(grams, celsius[i]), buffer.ph[i], buffer.within)
          << grams.begin()->first << " at " << celsius[i];
  }
}

TEST(TruthPublished, AcidityOfPlainSaltsAcidsAndBases) {
  int judged = 0;
  for (const auto& row : truthRows("ph_plain.csv")) {
    const auto& formula = row.at("formula");
    // Formic acid and EDTA without a metal: not yet known to the chemistry.
    if (formula == "HCOOH" || formula.starts_with("C10")) continue;
    const bool organic = formula.starts_with('C') || formula.find("C6H") != std::string::npos;
    ++judged;
    const double grams = std::stod(row.at("mmol_per_kg_water")) * gramsPerMole(formula) / 1000;
    EXPECT_NEAR(phOf({{formula, grams}}, std::stod(row.at("temperature_c"))),
                std::stod(row.at("ph_without_air")),
                organic                          ? 0.15
                : formula.starts_with("Na2B4O7") ? 0.075
                                                 : 0.06)
        << row.at("mmol_per_kg_water") << " mmol of " << formula << " at " << row.at("temperature_c");
  }
  EXPECT_EQ(judged, 108);
}

// Kohlrausch's equivalent conductivities (S cm2 per equivalent, 25 degC), as handbooks print them, from
// memory.
TEST(TruthPublished, ConductivityOfChlorides) {
  const double equivalents[] = {0.001, 0.005, 0.01, 0.02, 0.05};
  const struct {
    const char* salt;
    int charge;
    double conductivity[5];
  } salts[] = {{"KCl", 1, {146.95, 143.55, 141.27, 138.34, 133.37}},
               {"NaCl", 1, {123.74, 120.65, 118.51, 115.76, 111.06}},
               {"CaCl2", 2, {130.36, 124.25, 120.36, 115.65, 108.47}},
               {"MgCl2", 2, {124.11, 118.31, 114.55, 110.04, 103.08}}};
  for (const auto& [salt, charge, conductivity] : salts) {
    for (int i = 0; i < 5; ++i) {
      const double wanted = conductivity[i] * equivalents[i] * 1000;
      EXPECT_NEAR(microsiemens(salt, 1000 * equivalents[i] / charge), wanted, 0.015 * wanted)
          << salt << " at " << equivalents[i] << " eq/L";
    }
  }
}

// Kohlrausch, as above.
TEST(TruthPublished, ConductivityOfSodiumSulfateAndOthers) {
  const double equivalents[] = {0.001, 0.005, 0.01, 0.02, 0.05};
  const struct {
    const char* salt;
    int charge;
    double conductivity[5]; ///< 0: not in the table
  } salts[] = {{"Na2SO4", 2, {124.15, 117.15, 112.44, 106.78, 97.75}},
               {"KHCO3", 1, {115.34, 112.24, 110.08, 107.22, 0}},
               {"NH4Cl", 1, {0, 0, 141.28, 138.33, 133.29}}};
  for (const auto& [salt, charge, conductivity] : salts) {
    for (int i = 0; i < 5; ++i) {
      const double wanted = conductivity[i] * equivalents[i] * 1000;
      if (wanted == 0) continue;
      EXPECT_NEAR(microsiemens(salt, 1000 * equivalents[i] / charge), wanted, 0.015 * wanted)
          << salt << " at " << equivalents[i] << " eq/L";
    }
  }
}

// PHREEQC's specific conductance (tests/data/truth/README.md).
TEST(TruthPublished, ConductivityOfOneSalt) {
  int judged = 0;
  for (const auto& row : truthRows("conductivity_single.csv")) {
    const double millimoles = std::stod(row.at("mmol_per_kg_water"));
    const auto& salt = row.at("salt");
    if (row.at("temperature_c") != "25" || millimoles > 20) continue;
    ++judged;
    const double wanted = std::stod(row.at("phreeqc_us_per_cm"));
    EXPECT_NEAR(microsiemens(salt, millimoles), wanted, (salt == "MgSO4" ? 0.04 : 0.02) * wanted)
        << millimoles << " mmol of " << salt;
  }
  EXPECT_EQ(judged, 90);
}

// PHREEQC again, of whole feeds. Where a mixture of chlorides and nitrates alone is in question, in which
// each salt by itself is right to 0.3 %, the two differ by up to 2 %; half of all feeds agree within 0.9 %,
// nine in ten within 2.1 %.
TEST(TruthPublished, ConductivityOfFeeds) {
  std::vector<double> off;
  for (const auto& row : truthLines("feeds.jsonl")) {
    auto question = oneLitreOf(row["g_per_l"]);
    question["water"] = row["water"];
    const double got = answerTo("mix", question)["ec_ms_per_cm_25c"].get<double>() * 1000;
    off.push_back(std::abs(got / row["ec_us_per_cm_25c"].get<double>() - 1));
    EXPECT_LT(off.back(), 0.045) << row["g_per_l"];
  }
  std::sort(off.begin(), off.end());
  EXPECT_LT(off[off.size() / 2], 0.010);
  EXPECT_LT(off[off.size() * 9 / 10], 0.022);
}
