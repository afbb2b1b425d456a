/// Comparisons with general-purpose tools from Debian, which ./test installs: scipy, Open Babel, GNU units.
#include "base/decimal.h"
#include "chem/formula.h"
#include "solution/equilibrium.h"
#include "solve/bounded_least_squares.h"
#include "units/convert.h"

#include <array>
#include <cstdio>
#include <fstream>
#include <gtest/gtest.h>
#include <limits>
#include <random>
#include <sstream>
#include <unistd.h>

using namespace butte::core;

namespace {

std::string outputOf(const std::string& command) {
  std::string out;
  FILE* pipe = popen(command.c_str(), "r");
  if (!pipe) return out;
  std::array<char, 4096> buffer{};
  for (std::size_t n; (n = fread(buffer.data(), 1, buffer.size(), pipe)) > 0;)
    out.append(buffer.data(), n);
  pclose(pipe);
  return out;
}

struct FitProblem {
  Eigen::MatrixXd a;
  Eigen::VectorXd b, lower, upper;
};

FitProblem randomProblem(std::mt19937& random) {
  const auto unit = [&] { return random() / 4294967296.0; };
  const int rows = 2 + static_cast<int>(random() % 14), columns = 1 + static_cast<int>(random() % 30);
  FitProblem p{Eigen::MatrixXd(rows, columns), Eigen::VectorXd(rows), Eigen::VectorXd(columns),
               Eigen::VectorXd(columns)};
  for (int i = 0; i < rows; ++i) {
    p.b[i] = 2 * unit() - 0.3;
    for (int j = 0; j < columns; ++j)
      p.a(i, j) = unit() < 0.55 ? 0 : std::pow(10, 3 * unit() - 1.5); // sparse, like salts
  }
  for (int j = 0; j < columns; ++j) {
    p.lower[j] = unit() < 0.8 ? 0 : unit();
    p.upper[j] = unit() < 0.6 ? std::numeric_limits<double>::infinity() : p.lower[j] + 0.01 + unit();
  }
  return p;
}

} // namespace

TEST(Oracle, TheSolverAgreesWithScipyOnRandomBoundedProblems) {
  constexpr int count = 240;
  std::mt19937 random(99);
  std::vector<FitProblem> problems;
  const std::string path = "/tmp/butte-oracle-" + std::to_string(getpid()) + ".txt";
  {
    std::ofstream file(path);
    file.precision(17);
    for (int k = 0; k < count; ++k) {
      const auto p = problems.emplace_back(randomProblem(random));
      file << p.a.rows() << ' ' << p.a.cols() << '\n';
      for (int i = 0; i < p.a.rows(); ++i)
        for (int j = 0; j < p.a.cols(); ++j)
          file << p.a(i, j) << ' ';
      for (int i = 0; i < p.b.size(); ++i)
        file << p.b[i] << ' ';
      for (int j = 0; j < p.lower.size(); ++j)
        file << p.lower[j] << ' ';
      for (int j = 0; j < p.upper.size(); ++j)
        file << (std::isfinite(p.upper[j]) ? p.upper[j] : 1e300) << ' ';
      file << '\n';
    }
  }
  const auto output =
      outputOf("/usr/bin/python3 " + std::string(BUTTE_TEST_DATA) + "/oracle/bvls.py " + path);
  std::remove(path.c_str());
  std::istringstream costs(output);
  for (int k = 0; k < count; ++k) {
    double scipy = -1;
    ASSERT_TRUE(costs >> scipy) << "scipy gave no cost for problem " << k << " (is python3-scipy installed?)";
    const auto& p = problems[k];
    const auto x = boundedLeastSquares(p.a, p.b, p.lower, p.upper);
    for (int j = 0; j < x.size(); ++j) {
      EXPECT_GE(x[j], p.lower[j]);
      EXPECT_LE(x[j], p.upper[j]);
    }
    const double ours = 0.5 * (p.a * x - p.b).squaredNorm();
    EXPECT_LE(ours, scipy + 1e-9 * (1 + scipy)) << "problem " << k; // ours may only be better
    EXPECT_GE(ours, scipy - 1e-6 * (1 + scipy)) << "problem " << k;
  }
}

TEST(Oracle, MolarMassesAgreeWithOpenBabel) {
  // Open Babel wants SMILES; its masses are not the abridged ones, hence 0.01 %.
  const std::pair<const char*, const char*> cases[] = {
      {"[K+].[O-][N+](=O)[O-]", "KNO3"},
      {"[K+].OP(=O)(O)[O-]", "KH2PO4"},
      {"NC(=O)N", "CO(NH2)2"},
      {"[Mg+2].[O-]S(=O)(=O)[O-].O.O.O.O.O.O.O", "MgSO4·7H2O"},
      {"[Ca+2].[O-][N+](=O)[O-].[O-][N+](=O)[O-].O.O.O.O", "Ca(NO3)2·4H2O"},
      {"OB(O)O", "H3BO3"},
      {"[Zn+2].[O-]S(=O)(=O)[O-].O", "ZnSO4·H2O"},
      {"[Cu+2].[O-]S(=O)(=O)[O-].O.O.O.O.O", "CuSO4·5H2O"},
      {"[Mn+2].[O-]S(=O)(=O)[O-].O", "MnSO4·H2O"},
      {"OC(=O)CC(O)(C(=O)O)CC(=O)O", "C6H8O7"}};
  for (const auto& [smiles, formula] : cases) {
    const auto text = outputOf("obabel -:'" + std::string(smiles) + "' -otxt --append MW 2>/dev/null");
    const auto mass = parseDecimal(text);
    ASSERT_TRUE(mass) << "Open Babel said '" << text << "' for " << formula;
    EXPECT_NEAR(parseFormula(formula)->molarMassGPerMol, *mass, 1e-4 * *mass) << formula;
  }
}

TEST(Oracle, UnitFactorsAndAtomicMassesAgreeWithGnuUnits) {
  const auto units = [](const std::string& from, const std::string& to) {
    return parseDecimal(outputOf("units -t '" + from + "' '" + to + "' 2>/dev/null")).value_or(-1);
  };
  EXPECT_NEAR(*convert(1, "lb", "g"), units("lb", "g"), 1e-5);
  EXPECT_NEAR(*convert(1, "oz", "g"), units("oz", "g"), 1e-6);
  EXPECT_NEAR(*convert(1, "gal_us", "L"), units("usgallon", "L"), 1e-7);
  EXPECT_NEAR(*convert(1, "gal_imp", "L"), units("brgallon", "L"), 1e-7);
  EXPECT_NEAR(*convert(1, "floz_us", "mL"), units("usfloz", "mL"), 1e-5);
  EXPECT_NEAR(*convert(1, "tsp", "mL"), units("teaspoon", "mL"), 1e-5);
  EXPECT_NEAR(*convert(1, "gpg_CaCO3", "mg/L_CaCO3"), units("grain/usgallon", "mg/L"), 1e-5);
  EXPECT_NEAR(*convert(31.4, "lb", "kg") / *convert(50, "gal_us", "L") * 1000,
              units("31.4 lb / (50 usgallon)", "g/L"), 1e-4);
  // Its masses are older and finer: 0.01 % apart at most.
  const std::pair<const char*, const char*> elements[] = {
      {"N", "nitrogen"},    {"P", "phosphorus"}, {"K", "potassium"},  {"Ca", "calcium"},  {"Mg", "magnesium"},
      {"S", "sulfur"},      {"Fe", "iron"},      {"Mn", "manganese"}, {"Zn", "zinc"},     {"Cu", "copper"},
      {"Mo", "molybdenum"}, {"Si", "silicon"},   {"Na", "sodium"},    {"Cl", "chlorine"}, {"O", "oxygen"},
      {"H", "hydrogen"},    {"C", "carbon"},     {"B", "boron"}};
  for (const auto& [symbol, name] : elements) {
    const double mass = units(name, "1");
    EXPECT_NEAR(parseFormula(symbol)->molarMassGPerMol, mass, 3e-4 * mass) << symbol;
  }
}

// The same equilibria posed to scipy's root finder by a script that reads the data file by itself.
TEST(Oracle, TheChemistryAgreesWithScipyOnRandomSolutions) {
  constexpr int count = 40;
  std::mt19937 random(23);
  const auto unit = [&] { return random() / 4294967296.0; };
  const std::string path = "/tmp/butte-oracle-equilibrium-" + std::to_string(getpid()) + ".txt";
  std::vector<Equilibrium> ours;
  {
    std::ofstream file(path);
    file.precision(17);
    for (int n = 0; n < count; ++n) {
      Solutes totals;
      for (auto& mol : totals.mol)
        mol = unit() < 0.4 ? 0 : std::pow(10, -6 + 5 * unit());
      totals.alkalinityEq = totals.unbalancedEq();
      EquilibriumConditions conditions;
      conditions.temperature = Temperature::fromCelsius(45 * unit());
      const auto settled = equilibrate(totals, conditions);
      ASSERT_TRUE(settled) << n;
      ours.push_back(*settled);
      file << conditions.temperature.celsius() << ' ' << totals.alkalinityEq;
      for (const double mol : totals.mol)
        file << ' ' << mol;
      // A start off the answer, so that the root is really sought.
      file << ' ' << settled->ph + 0.4 * (unit() - 0.5);
      const auto& data = EquilibriumData::instance();
      for (const auto component : allComponents)
        file << ' ' << std::log(std::max(settled->molality[data.speciesOf(component)], 1e-30)) + unit() - 0.5;
      file << '\n';
    }
  }
  std::istringstream answers(outputOf("/usr/bin/python3 " BUTTE_TEST_DATA
                                      "/oracle/equilibrium.py " BUTTE_TEST_DATA "/../data/equilibria.csv " +
                                      path));
  std::remove(path.c_str());
  for (int n = 0; n < count; ++n) {
    double worst = 1, ph = 0, strength = 0;
    ASSERT_TRUE(answers >> worst >> ph >> strength) << n;
    EXPECT_LT(worst, 1e-8) << "scipy found no root for " << n;
    const auto& mine = ours[static_cast<std::size_t>(n)];
    EXPECT_NEAR(mine.ph, ph, 1e-6) << n;
    EXPECT_NEAR(mine.ionicStrength, strength, 1e-6 * strength) << n;
    for (const double ours_i : mine.molality) {
      double theirs = 0;
      ASSERT_TRUE(answers >> theirs);
      EXPECT_NEAR(ours_i, theirs, 1e-6 * theirs + 1e-25) << n;
    }
  }
}
