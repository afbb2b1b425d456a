#include "formula/mix.h"
#include "product/catalogue.h"
#include "product/product_solutes.h"
#include "support/shelf_builder.h"
#include "water/water_solutes.h"

#include <cmath>
#include <gmock/gmock.h>
#include <numeric>

using namespace butte;
using namespace butte::core;
using C = Component;

namespace {

/// Solutes of one mole of the pure substance.
Solutes perMole(const char* formula) {
  const auto salt = test::salt(formula);
  return salt.composition.solutesPerGram.scaled(salt.composition.formula->molarMassGPerMol);
}

} // namespace

TEST(ProductSolutes, EveryShippedProductDissolvesWithoutAChargeLeftOver) {
  for (const auto& product : catalogue()) {
    const auto& solutes = product.composition.solutesPerGram;
    const double all = std::accumulate(solutes.mol.begin(), solutes.mol.end(), 0.0) +
                       std::accumulate(solutes.chelateMol.begin(), solutes.chelateMol.end(), 0.0);
    // A label is rounded; a formula is exact.
    const double allowed = product.fromLabel ? 0.03 * all : 1e-9;
    EXPECT_NEAR(solutes.unbalancedEq(), 0, allowed) << product.id;
    EXPECT_EQ(all > 0, product.id != "urea") << product.id;
  }
}

TEST(ProductSolutes, SaltsComeApartIntoTheirIons) {
  const auto nitrate = perMole("Ca(NO3)2·4H2O");
  EXPECT_NEAR(nitrate.of(C::Ca), 1, 1e-9);
  EXPECT_NEAR(nitrate.of(C::NO3), 2, 1e-9);
  EXPECT_NEAR(nitrate.alkalinityEq, 0, 1e-9);
  const auto phosphate = perMole("(NH4)2HPO4");
  EXPECT_NEAR(phosphate.of(C::NH4), 2, 1e-9);
  EXPECT_NEAR(phosphate.of(C::Phosphate), 1, 1e-9);
  EXPECT_NEAR(phosphate.alkalinityEq, 1, 1e-9); // one proton below H2PO4-
}

TEST(ProductSolutes, AcidsTakeAlkalinityAndBasesBringTheirCarbonate) {
  EXPECT_NEAR(perMole("HNO3").alkalinityEq, -1, 1e-9);
  EXPECT_NEAR(perMole("H2SO4").alkalinityEq, -2, 1e-9);
  EXPECT_NEAR(perMole("H3PO4").alkalinityEq, -1, 1e-9);
  EXPECT_NEAR(perMole("K2CO3").alkalinityEq, 2, 1e-9);
  EXPECT_NEAR(perMole("K2CO3").of(C::Carbonate), 1, 1e-9);
  EXPECT_NEAR(perMole("KHCO3").alkalinityEq, 1, 1e-9);
  EXPECT_NEAR(perMole("KHCO3").of(C::Carbonate), 1, 1e-9);
  const auto citric = perMole("C6H8O7·H2O");
  EXPECT_NEAR(citric.of(C::Citrate), 1, 1e-9);
  EXPECT_EQ(citric.alkalinityEq, 0); // the whole acid is what alkalinity is counted against
}

TEST(ProductSolutes, AChelateKeepsItsMetalAndTheChargeOfItsCounterIons) {
  const auto iron = perMole("C10H12N2NaFeO8·3H2O");
  EXPECT_NEAR(iron.chelateMol[0], 1, 1e-9);
  EXPECT_EQ(iron.of(C::Fe), 0);
  EXPECT_NEAR(iron.of(C::Na), 1, 1e-9);
  EXPECT_NEAR(perMole("C10H12N2Na2MnO8").chelateMol[1], 1, 1e-9); // two sodium: two charges
  EXPECT_NEAR(perMole("FeSO4·7H2O").of(C::Fe), 1, 1e-9);
}

TEST(ProductSolutes, PurityAndWaterLeaveLess) {
  const auto whole = test::salt("HNO3").composition.solutesPerGram;
  const auto sixty = test::salt("HNO3", 60).composition.solutesPerGram;
  EXPECT_NEAR(sixty.of(C::NO3), 0.6 * whole.of(C::NO3), 1e-12);
  EXPECT_NEAR(sixty.alkalinityEq, 0.6 * whole.alkalinityEq, 1e-12);
}

// Ammonium, phosphate and the rest of a mix by hand: 1 mmol of each in a litre.
TEST(Mix, TheFeedsSolutesAreTheSumOfItsSaltsAndItsWater) {
  const auto water = test::waterOf({{"Ca", 40.078}, {"HCO3", 122.03}});
  const auto feed = mix(water, {test::salt("NH4H2PO4"), test::salt("KNO3")},
                        {test::grams(0.115025), test::grams(0.101102)}, test::litres(1));
  EXPECT_NEAR(feed.solutesPerLitre.of(C::NH4), 1e-3, 1e-7);
  EXPECT_NEAR(feed.solutesPerLitre.of(C::Phosphate), 1e-3, 1e-7);
  EXPECT_NEAR(feed.solutesPerLitre.of(C::K), 1e-3, 1e-7);
  EXPECT_NEAR(feed.solutesPerLitre.of(C::Ca), 1e-3, 1e-7);
  EXPECT_NEAR(feed.solutesPerLitre.alkalinityEq, 2e-3, 1e-6);
  EXPECT_NEAR(feed.waterKgPerLitre, 0.997, 0.001);
}

TEST(Mix, AReportThatDoesNotBalanceStillReadsItsOwnPh) {
  WaterReport report;
  report.milligramsPerLitre = {{"Ca", 90}, {"HCO3", 150}, {"Cl", 10}}; // a cation too many by 1.7 meq/L
  report.ph = 7.4;
  const auto water = *normaliseWater(report);
  EXPECT_GT(std::abs(waterSolutes(water).perLitre.unbalancedEq()), 1e-3);
  EXPECT_NEAR(*mix(water, {}, {}, test::litres(1)).ph, 7.4, 0.002);
}

// Common practice: salts by themselves lower the pH of a tap water (7.5 to about 6.9), acid is needed for the
// rest.
TEST(Mix, FertilizerSaltsLowerThePhByThemselves) {
  WaterReport report;
  report.milligramsPerLitre = {{"Ca", 45}, {"Mg", 8}, {"Na", 12}, {"Cl", 15}, {"SO4", 25}, {"HCO3", 145}};
  report.ph = 7.5;
  const auto water = *normaliseWater(report);
  const auto feed =
      mix(water,
          {test::salt("KH2PO4"), test::salt("KNO3"), test::salt("Ca(NO3)2·4H2O"), test::salt("MgSO4·7H2O")},
          {test::grams(0.2), test::grams(0.4), test::grams(0.6), test::grams(0.4)}, test::litres(1));
  EXPECT_LT(*feed.ph, 7.1);
  EXPECT_GT(*feed.ph, 6.5);
}

TEST(ProductSolutes, AnOrganicSaltIsKnownByItsAtomsHoweverItIsWritten) {
  const struct {
    const char* formula;
    Component acid;
    double residues, alkalinity; ///< per mole, against the whole acid
  } salts[] = {{"CH3COONa", Component::Acetate, 1, 1},      {"C2H3NaO2", Component::Acetate, 1, 1},
               {"CH3COOH", Component::Acetate, 1, 0},       {"C4H6CaO4", Component::Acetate, 2, 2},
               {"K3C6H5O7", Component::Citrate, 1, 3},      {"KH2C6H5O7", Component::Citrate, 1, 1},
               {"C6H8O7·H2O", Component::Citrate, 1, 0},    {"CH3COONH4", Component::Acetate, 1, 1},
               {"Na3C6H5O7·2H2O", Component::Citrate, 1, 3}};
  for (const auto& [formula, acid, residues, alkalinity] : salts) {
    const auto made = compositionFromFormula(formula, 100);
    ASSERT_TRUE(made) << formula;
    const double molarMass = made->formula->molarMassGPerMol;
    EXPECT_NEAR(made->solutesPerGram.of(acid) * molarMass, residues, 1e-9) << formula;
    EXPECT_NEAR(made->solutesPerGram.alkalinityEq * molarMass, alkalinity, 1e-9) << formula;
    EXPECT_TRUE(made->acidityKnown) << formula;
  }
}

TEST(ProductSolutes, WhatTheChemistryDoesNotKnowIsSaid) {
  for (const char* formula :
       {"HCOOH", "C3H6O3", "C6H12O6", "C2H2O4·2H2O", "H3NSO3", "C10H14N2O8Na2·2H2O", "NaNO2"})
    EXPECT_FALSE(compositionFromFormula(formula, 100)->acidityKnown) << formula;
  for (const char* formula : {"KNO3", "CO(NH2)2", "KHCO3", "C10H12N2O8FeNa", "(NH4)2SO4", "H3BO3", "Ca(OH)2"})
    EXPECT_TRUE(compositionFromFormula(formula, 100)->acidityKnown) << formula;
  const auto formic = test::salt("HCOOH");
  const auto feed = mix(pureWater(), {formic}, {test::grams(0.1)}, test::litres(1));
  EXPECT_FALSE(feed.ph) << "unknown is not neutral";
  EXPECT_FALSE(feed.acidityKnown);
  EXPECT_TRUE(mix(pureWater(), {formic}, {test::grams(0)}, test::litres(1)).ph)
      << "on the shelf it does no harm";
}
