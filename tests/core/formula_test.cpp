#include "base/decimal.h"
#include "chem/formula.h"
#include "support/text_table.h"
#include "words.h"

#include <gmock/gmock.h>
#include <random>

using namespace butte;
using namespace butte::core;

TEST(Formula, MolarMassesMatchTheTable) {
  for (const auto& row : test::readTextTable("molar_mass.txt")) {
    const auto formula = parseFormula(row[0]);
    ASSERT_TRUE(formula) << row[0];
    EXPECT_NEAR(formula->molarMassGPerMol, *parseDecimal(row[1]), 0.0006) << row[0];
  }
}

TEST(Formula, MassFractionsMatchTheTable) {
  for (const auto& row : test::readTextTable("mass_fraction.txt")) {
    const auto formula = parseFormula(row[0]);
    ASSERT_TRUE(formula) << row[0];
    const auto nutrient = nutrientFromKey(row[1]);
    ASSERT_TRUE(nutrient) << row[1];
    EXPECT_NEAR(massFractions(*formula).of(*nutrient), *parseDecimal(row[2]), 1e-6)
        << row[0] << " " << row[1];
  }
}

TEST(Formula, AMalformedFormulaSaysWhereAndWhatWasExpected) {
  for (const auto& row : test::readTextTable("bad_formulas.txt")) {
    const auto formula = parseFormula(row[0]);
    ASSERT_FALSE(formula) << row[0];
    ASSERT_GE(formula.problem().values.size(), 3u) << row[0] << words::problemText(formula.problem());
    EXPECT_EQ(formula.problem().values[1], row[1]) << row[0] << ": " << words::problemText(formula.problem());
    EXPECT_THAT(words::problemText(formula.problem()), ::testing::HasSubstr(row[2])) << row[0];
  }
}

TEST(Formula, AnEmptyFormulaAndAHugeOneAreRefused) {
  EXPECT_EQ(parseFormula("").problem().code, ProblemCode::FormulaEmpty);
  EXPECT_EQ(parseFormula("   ").problem().code, ProblemCode::FormulaEmpty);
  EXPECT_EQ(parseFormula(std::string(5000, 'C')).problem().code, ProblemCode::FormulaTooLarge);
  EXPECT_EQ(parseFormula("H" + std::string(200, '9')).problem().code, ProblemCode::FormulaTooLarge);
  EXPECT_EQ(parseFormula(std::string(40, '(') + "H").problem().code, ProblemCode::FormulaTooLarge);
}

TEST(Formula, HydrateWaterIsCountedApart) {
  EXPECT_DOUBLE_EQ(parseFormula("Na2[B4O5(OH)4]·8H2O")->hydrateWaterCount, 8);
  EXPECT_DOUBLE_EQ(parseFormula("5Ca(NO3)2·NH4NO3·10H2O")->hydrateWaterCount, 10);
  EXPECT_NEAR(hydrateWaterFraction(*parseFormula("MgSO4·7H2O")), 7 * 18.015 / 246.466, 1e-6);
}

/// Long runs of this are the libFuzzer target in bench/; this one guards every build.
TEST(Formula, RandomTextNeitherCrashesNorGivesNonsense) {
  std::mt19937 random(20261123);
  const std::string alphabet = "CaNOHKPSMgFe()[]{}0123456789.*· ₂xü\n";
  for (int i = 0; i < 20000; ++i) {
    std::string text;
    const auto length = random() % 24;
    for (unsigned k = 0; k < length; ++k)
      text += alphabet[random() % alphabet.size()];
    const auto formula = parseFormula(text);
    if (!formula) {
      EXPECT_FALSE(words::problemText(formula.problem()).empty());
      continue;
    }
    EXPECT_GT(formula->molarMassGPerMol, 0) << text;
    const auto fractions = massFractions(*formula);
    double sum = 0;
    for (const auto n : allNutrients) {
      EXPECT_GE(fractions.of(n), 0) << text;
      if (n != Nutrient::N) sum += fractions.of(n);
    }
    EXPECT_LE(sum, 1 + 1e-9) << text;
  }
}
