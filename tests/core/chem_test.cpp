#include "chem/ions.h"
#include "chem/substance.h"
#include "product/oxides.h"

#include <gtest/gtest.h>

using namespace butte::core;

TEST(Substance, ElementKeysIonsAndFormulasAreRead) {
  EXPECT_NEAR(substanceNamed("Ca")->molarMassGPerMol, 40.078, 1e-9);
  EXPECT_EQ(substanceNamed("Ca")->chargeNumber, 2);
  EXPECT_EQ(substanceNamed("N_NO3")->chargeNumber, 1);
  EXPECT_NEAR(substanceNamed("N_NH4")->molarMassGPerMol, 14.007, 1e-9);
  EXPECT_EQ(substanceNamed("N_urea")->chargeNumber, 0);
  EXPECT_NEAR(substanceNamed("SO4")->molarMassGPerMol, 96.056, 1e-9);
  EXPECT_EQ(substanceNamed("SiO2")->chargeNumber, 0);
  EXPECT_FALSE(substanceNamed("?"));
}

TEST(Substance, MassesFollowTheSharedElement) {
  EXPECT_NEAR(*massOfOneInOther("NO3", "N_NO3"), 14.007 / 62.004, 1e-9);
  EXPECT_NEAR(*massOfOneInOther("P", "P2O5"), 1 / 0.43643, 2e-4);
  EXPECT_NEAR(*massOfOneInOther("CaCO3", "Ca"), 40.078 / 100.086, 1e-9);
  EXPECT_NEAR(*massOfOneInOther("SO4", "SO3"), 80.057 / 96.056, 1e-5);
  EXPECT_FALSE(massOfOneInOther("K2O", "CaO"));
}

// Oxide factors as labels use them: P 0.43643, K 0.83015, Ca 0.71470, Mg 0.60304, S 0.40046, Si 0.46744 (by
// hand).
TEST(Oxides, FactorsAreThoseOfTheLabel) {
  const std::pair<const char*, double> factors[] = {{"P2O5", 0.43643}, {"K2O", 0.83015}, {"CaO", 0.71470},
                                                    {"MgO", 0.60304},  {"SO3", 0.40046}, {"SiO2", 0.46744}};
  for (const auto& [key, factor] : factors)
    EXPECT_NEAR(elementShare(*statedFormFor(key)), factor, 1.5e-5) << key;
  EXPECT_FALSE(statedFormFor("XO"));
  for (const auto& form : statedForms)
    EXPECT_GT(elementShare(form), 0) << form.key;
}

TEST(Ions, MilligramsBecomeEquivalents) {
  NutrientAmounts mg;
  mg.add(Nutrient::Ca, 40.078);
  mg.add(Nutrient::S, 32.06);
  mg.add(Nutrient::P, 30.974);
  const auto ions = ionBalance(mg, 0.5);
  EXPECT_NEAR(ions.of(Ion::Ca), 2, 1e-12);
  EXPECT_NEAR(ions.of(Ion::SO4), 2, 1e-12);
  EXPECT_NEAR(ions.of(Ion::H2PO4), 1, 1e-12); // one charge, by the house rule
  EXPECT_NEAR(ions.of(Ion::HCO3), 0.5, 1e-12);
  EXPECT_NEAR(ions.cationsMeqPerL(), 2, 1e-12);
  EXPECT_NEAR(ions.anionsMeqPerL(), 3.5, 1e-12);
  EXPECT_NEAR(ionBalance(mg, -0.5).of(Ion::H), 0.5, 1e-12);
}

TEST(Nutrients, KeysComeBackAndTheSumIsTheSumOfItsForms) {
  for (const auto n : allNutrients)
    EXPECT_EQ(nutrientFromKey(nutrientKey(n)), n);
  EXPECT_FALSE(nutrientFromKey("n_no3"));
  NutrientAmounts a;
  a.add(Nutrient::NNitrate, 3);
  a.add(Nutrient::NAmmonium, 2);
  a.add(Nutrient::NUrea, 1);
  EXPECT_EQ(a.of(Nutrient::N), 6);
}
