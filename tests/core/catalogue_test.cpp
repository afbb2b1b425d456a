#include "product/catalogue.h"
#include "product/oxides.h"
#include "stock/solubility.h"
#include "target/target.h"

#include <gtest/gtest.h>
#include <set>

using namespace butte::core;

TEST(Catalogue, EveryRowReadsAndNamesItsSource) {
  ASSERT_EQ(catalogue().size(), 56u);
  std::set<std::string> ids, names;
  for (const auto& p : catalogue()) {
    EXPECT_TRUE(ids.insert(p.id).second) << p.id;
    EXPECT_TRUE(names.insert(p.shortName).second) << p.shortName;
    EXPECT_FALSE(p.source.empty()) << p.id;
    EXPECT_FALSE(p.confidence.empty()) << p.id;
    EXPECT_TRUE(!p.liquid || p.densityKgPerL) << p.id;
  }
  EXPECT_EQ(findInCatalogue("nothing"), nullptr);
}

/// The label printed in the catalogue and the formula it is computed from must tell the same story.
TEST(Catalogue, LabelAndFormulaAgree) {
  for (const auto& p : catalogue()) {
    for (const auto& [key, percent] : p.label) {
      const auto form = statedFormFor(key);
      const auto nutrient = form ? form->nutrient : *nutrientFromKey(key);
      const double labelled = percent / 100 * (form ? elementShare(*form) : 1);
      EXPECT_NEAR(p.composition.massFraction.of(nutrient), labelled, 0.035 * labelled + 0.0006)
          << p.id << " " << key;
    }
  }
}

TEST(Catalogue, TheDoubleSaltFollowsItsLabel) {
  EXPECT_DOUBLE_EQ(findInCatalogue("can_double")->composition.massFraction.of(Nutrient::Ca), 0.19);
}

TEST(Targets, EveryRowReadsAndNamesItsSource) {
  ASSERT_GT(targetCatalogue().size(), 30u);
  for (const auto& t : targetCatalogue()) {
    EXPECT_GE(t.rows.size(), 5u) << t.id;
    EXPECT_FALSE(t.source.empty()) << t.id;
  }
}

// Handbook values: CRC Handbook of Chemistry and Physics, from memory: g anhydrous per kg water at 20 degC.
TEST(Solubility, HandbookValuesAndLogarithmicInterpolation) {
  const auto at = [](const char* formula, double celsius) {
    return anhydrousGramsPerKgWater(*parseFormula(formula), Temperature::fromCelsius(celsius));
  };
  EXPECT_NEAR(*at("KNO3", 20), 316, 5);
  EXPECT_NEAR(*at("K2SO4", 20), 111, 3);
  EXPECT_NEAR(*at("KH2PO4", 20), 223, 5);
  // The logarithm is straight over 1/T: at 14.915 degC lies half of 1/283.15 and 1/293.15.
  EXPECT_NEAR(*at("KNO3", 2 / (1 / 283.15 + 1 / 293.15) - 273.15),
              std::sqrt(*at("KNO3", 10) * *at("KNO3", 20)), 1e-9);
  // Any hydrate of the same substance shares the row.
  EXPECT_DOUBLE_EQ(*at("MgSO4·7H2O", 10), *at("MgSO4·2H2O", 10));
}

TEST(Solubility, WhereTheTableEndsTheAnswerIsNotKnown) {
  const auto at = [](const char* formula, double celsius) {
    return anhydrousGramsPerKgWater(*parseFormula(formula), Temperature::fromCelsius(celsius));
  };
  EXPECT_FALSE(at("KNO3", 41));
  EXPECT_FALSE(at("KNO3", -1));
  EXPECT_FALSE(at("LiNO3", 20));
  EXPECT_FALSE(at("C10H12N2NaFeO8·3H2O", 12)); // one figure, at 20 degC only
  EXPECT_TRUE(at("C10H12N2NaFeO8·3H2O", 20));
}

TEST(Catalogue, TheSameSubstanceIsFoundByItsAtoms) {
  EXPECT_EQ(findSameSubstance(*parseFormula("K(NO3)"))->id, "kno3");
  EXPECT_EQ(findSameSubstance(*parseFormula("LiCl")), nullptr);
}
