#include "base/csv.h"
#include "base/embedded.h"
#include "solution/activity.h"
#include "solution/equilibrium_data.h"

#include <cmath>
#include <gmock/gmock.h>

using namespace butte::core;

namespace {

double log10K(const char* species, double celsius) {
  const auto& data = EquilibriumData::instance();
  return data.at(Temperature::fromCelsius(celsius)).lnFormation[*data.speciesIndex(species)] /
         2.302585092994046;
}

} // namespace

TEST(EquilibriumData, EveryRowHasASourceAndAConfidence) {
  for (const auto text : {embedded::equilibria(), embedded::ions()}) {
    const CsvTable csv(text);
    ASSERT_GT(csv.rowCount(), 40u);
    for (std::size_t row = 0; row < csv.rowCount(); ++row) {
      EXPECT_FALSE(csv.cell(row, "source").empty()) << row;
      EXPECT_THAT(csv.cell(row, "confidence"), ::testing::AnyOf("high", "medium", "low")) << row;
    }
  }
}

TEST(EquilibriumData, EverySpeciesBalancesItsChargeAndConductsWhereItIsCharged) {
  const auto& data = EquilibriumData::instance();
  EXPECT_GT(data.species().size(), 70u);
  for (const auto& species : data.species()) {
    double charge = species.made.hydrogen;
    for (const auto& [component, power] : species.made.components)
      charge += power * data.species()[data.speciesOf(allComponents[component])].charge;
    EXPECT_NEAR(charge, species.charge, 1e-12) << species.name;
    // Three pairs without charge go on carrying some current (data/ions.csv says why).
    const bool loose =
        species.name == "MgSO4(aq)" || species.name == "CaSO4(aq)" || species.name == "KNO3(aq)";
    EXPECT_EQ(species.charge != 0 || loose, species.conductivityAt25C > 0) << species.name;
  }
}

TEST(EquilibriumData, EverySolidBalancesItsChargeAndHasAMass) {
  const auto& data = EquilibriumData::instance();
  for (const auto& solid : data.solids()) {
    double charge = solid.dissolved.hydrogen;
    for (const auto& [component, power] : solid.dissolved.components)
      charge += power * data.species()[data.speciesOf(allComponents[component])].charge;
    EXPECT_NEAR(charge, 0, 1e-12) << solid.name;
    EXPECT_GT(solid.molarMassGPerMol, 50) << solid.name;
  }
}

// CRC Handbook, from memory: pKw 14.94, 14.53, 13.995, 13.535 at 0, 10, 25, 40 degC; pKa of ammonium 10.08
// and 9.25 at 0 and 25; pK1 and pK2 of carbonic acid 6.58, 10.63 at 0 and 6.35, 10.33 at 25 degC (Plummer &
// Busenberg 1982).
TEST(EquilibriumData, ConstantsChangeWithTemperatureAsTheHandbookSays) {
  for (const auto& [celsius, pk] : {std::pair{0.0, 14.94}, {10.0, 14.53}, {25.0, 13.995}, {40.0, 13.535}})
    EXPECT_NEAR(-log10K("OH-", celsius), pk, 0.02) << celsius;
  EXPECT_NEAR(-log10K("NH3(aq)", 0), 10.08, 0.02);
  EXPECT_NEAR(-log10K("NH3(aq)", 25), 9.25, 0.02);
  EXPECT_NEAR(log10K("HCO3-", 0), 10.63, 0.01);
  EXPECT_NEAR(log10K("HCO3-", 25), 10.33, 0.01);
  EXPECT_NEAR(log10K("CO2(aq)", 0) - log10K("HCO3-", 0), 6.58, 0.01);
  EXPECT_NEAR(log10K("CO2(aq)", 25) - log10K("HCO3-", 25), 6.35, 0.01);
}

// Robinson & Stokes 1959 and the CRC Handbook, from memory.
TEST(Activity, WatersOwnPropertiesAreThoseOfTheTables) {
  EXPECT_NEAR(ActivityModel(25).a(), 0.5115, 0.003);
  EXPECT_NEAR(ActivityModel(0).a(), 0.4918, 0.003);
  EXPECT_NEAR(ActivityModel(25).b(), 0.3291, 0.001);
  EXPECT_NEAR(waterPermittivity(25), 78.30, 0.02);
  EXPECT_NEAR(waterDensityKgPerL(4), 1.0000, 0.00003);
  EXPECT_NEAR(waterDensityKgPerL(25), 0.99705, 0.00003);
  EXPECT_NEAR(waterRelativeViscosity(25) * 1.002, 0.890, 0.002);
  EXPECT_NEAR(waterRelativeViscosity(0) * 1.002, 1.792, 0.01);
}

TEST(Activity, PastItsReachTheLinearTermIsLevelAndTheSlopeIsTheDerivative) {
  const ActivityModel model(20);
  EXPECT_NEAR(model.lnGamma(0, 0, 0.1, 6), model.lnGamma(0, 0, 0.1, 20), 1e-12);
  for (const double strength : {1e-4, 0.01, 0.3, 3.0, 9.0}) {
    const double h = 1e-6 * strength;
    const double slope =
        (model.lnGamma(2, 5, 0.165, strength + h) - model.lnGamma(2, 5, 0.165, strength - h)) / (2 * h);
    EXPECT_NEAR(model.lnGammaSlope(2, 5, 0.165, strength), slope, 1e-5 * std::abs(slope) + 1e-9);
  }
}
