// Published buffers and conductivities, and plain salts against PHREEQC with minteq.v4.dat.
#include "solution/equilibrium_data.h"
#include "truth_table.h"

#include <cmath>

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

/// Charge and limiting molar conductivity of an ion (data/ions.csv), by name; zeros for what carries nothing.
std::pair<double, double> chargeAndConductivity(const std::string& name) {
  const auto& data = butte::core::EquilibriumData::instance();
  const auto index = data.speciesIndex(name);
  if (!index) return {0, 0};
  const auto& species = data.species()[*index];
  return {species.charge, species.conductivityAt25C};
}

/// What the sum over the ions becomes at any dilution where each sign's mean is taken by the ions' shares of
/// the ionic strength instead of their equivalents: 1 for one salt, whatever it is.
double meanByIonicStrength(const Json& millimolesPerLitre) {
  struct Side {
    double equivalents = 0, strength = 0, byEquivalents = 0, byStrength = 0;
  } sides[2];
  for (const auto& [name, amount] : millimolesPerLitre.items()) {
    const auto [charge, conductivity] = chargeAndConductivity(name);
    if (charge == 0 || conductivity == 0) continue;
    auto& side = sides[charge > 0];
    const double z = std::abs(charge), m = amount.get<double>(), each = conductivity / z;
    side.equivalents += z * m;
    side.strength += z * z * m;
    side.byEquivalents += z * m * each;
    side.byStrength += z * z * m * each;
  }
  double right = 0, wrong = 0;
  for (const auto& side : sides) {
    right += side.byEquivalents;
    wrong += side.equivalents * side.byStrength / side.strength;
  }
  return wrong / right;
}

/// Half of the width that holds two thirds of the values about their mean.
double scatter(const std::vector<double>& values) {
  double mean = 0, square = 0;
  for (const double x : values)
    mean += x / static_cast<double>(values.size());
  for (const double x : values)
    square += (x - mean) * (x - mean) / static_cast<double>(values.size());
  return std::sqrt(square);
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
                organic ? 0.15

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
// Why feeds lie up to 4 % beside the reference where each of their salts agrees: it means over the ions of a
// sign by their shares of the ionic strength. That contradicts Kohlrausch's independent migration (the test
// after this one) by as much at any dilution. Without that mean the two scatter by half.
TEST(TruthPublished, FeedsPartFromTheReferenceByItsMeanOverTheIons) {
  std::vector<double> asTheyStand, withItsMean;
  for (const auto& row : truthLines("feeds.jsonl")) {
    auto question = oneLitreOf(row["g_per_l"]);
    question["water"] = row["water"];
    const double ratio = answerTo("mix", question)["ec_ms_per_cm_25c"].get<double>() * 1000 /
                         row["ec_us_per_cm_25c"].get<double>();
    question["temperature_c"] = 25;
    question["co2"] = "closed";
    const auto ions = answerTo("equilibrium", question)["species_mmol_per_l"];
    asTheyStand.push_back(ratio);
    withItsMean.push_back(ratio * meanByIonicStrength(ions));
  }
  EXPECT_GT(scatter(asTheyStand), 0.011);
  EXPECT_LT(scatter(withItsMean), 0.0065);
}

// Kohlrausch's law of independent migration: thin enough, a mixture carries what its salts carry apart, each
// at the mixture's ionic strength. (The reference's mean would take between half a percent and a sixth off
// these.)
TEST(TruthPublished, ThinMixturesCarryWhatTheirSaltsCarryApart) {
  const auto strengthOf = [](const std::string& salt) { // mol/kg of ionic strength in a mol/kg of the salt
    return salt.starts_with("Ca") || salt.starts_with("Mg") ? 3.0 : 1.0;
  };
  const std::map<std::string, double> millimoles[] = {
      {{"KCl", 0.2}, {"CaCl2", 0.05}},
      {{"KNO3", 0.2}, {"CaCl2", 0.05}, {"NaCl", 0.1}},
      {{"KCl", 0.3}, {"Mg(NO3)2", 0.1}, {"NH4NO3", 0.1}},
      {{"HCl", 0.2}, {"CaCl2", 0.2}},
  };
  for (const auto& mixture : millimoles) {
    std::map<std::string, double> grams;
    double strength = 0, apart = 0;
    for (const auto& [salt, amount] : mixture) {
      grams[salt] = amount * gramsPerMole(salt) / 1000;
      strength += amount * strengthOf(salt);
    }
    for (const auto& [salt, amount] : mixture) {
      const double alike = strength / strengthOf(salt);
      apart += microsiemens(salt, alike) * amount / alike;
    }
    const double together = answerTo("mix", oneLitre(grams))["ec_ms_per_cm_25c"].get<double>() * 1000;
    EXPECT_NEAR(together / apart, 1, 0.003) << mixture.begin()->first;
  }
}

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
