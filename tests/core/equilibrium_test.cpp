#include "base/decimal.h"
#include "product/product.h"
#include "solution/equilibrium.h"
#include "solution/solution_state.h"
#include "support/text_table.h"

#include <cmath>
#include <gmock/gmock.h>
#include <random>

using namespace butte;
using namespace butte::core;
using C = Component;

namespace {

EquilibriumConditions at(double celsius) {
  EquilibriumConditions conditions;
  conditions.temperature = Temperature::fromCelsius(celsius);
  return conditions;
}

Solutes make(std::initializer_list<std::pair<C, double>> parts, double alkalinity = 0) {
  Solutes out;
  for (const auto& [component, mol] : parts)
    out.of(component) += mol;
  out.alkalinityEq = alkalinity;
  return out;
}

Solutes buffer(const std::string& name) {
  if (name == "phosphate 1:1") return make({{C::K, 0.025}, {C::Na, 0.05}, {C::Phosphate, 0.05}}, 0.025);
  if (name == "phosphate 1:3.5")
    return make({{C::K, 0.008695}, {C::Na, 0.06086}, {C::Phosphate, 0.039125}}, 0.03043);
  if (name == "borax") return make({{C::Na, 0.02}, {C::Boron, 0.04}}, 0.02);
  if (name == "carbonate") return make({{C::Na, 0.075}, {C::Carbonate, 0.05}}, 0.075);
  if (name == "citrate") return make({{C::K, 0.05}, {C::Citrate, 0.05}}, 0.05);
  if (name == "lime water") return make({{C::Ca, 0.0203}}, 0.0406);
  return make({{C::Na, 0.1}, {C::Acetate, 0.2}}, 0.1);
}

SolidPhase phase(const std::string& name, double celsius) {
  const auto& data = EquilibriumData::instance();
  const auto i = *data.solidIndex(name);
  return {data.solids()[i].dissolved, data.at(Temperature::fromCelsius(celsius)).lnSolubility[i]};
}

/// Mol of the solid's calcium that stays dissolved, out of plenty.
double dissolvedCalcium(const Solutes& totals, const EquilibriumConditions& conditions) {
  const auto settled = equilibrate(totals, conditions);
  EXPECT_TRUE(settled);
  return settled ? totals.of(C::Ca) - settled->solidMol[0] : -1;
}

/// Any mixture: most ions there or not, from traces to several mol/kg, whole salts (no charge left over).
Solutes randomTotals(std::mt19937& random) {
  const auto unit = [&] { return random() / 4294967296.0; };
  Solutes totals;
  const double strongest = unit() < 0.7 ? -1 : 0.6;
  for (auto& mol : totals.mol)
    mol = unit() < 0.35 ? 0 : std::pow(10, -7 + unit() * (7 + strongest));
  for (auto& mol : totals.chelateMol)
    mol = unit() < 0.7 ? 0 : 1e-4 * unit();
  totals.alkalinityEq = totals.unbalancedEq();
  return totals;
}

} // namespace

TEST(Equilibrium, PureWaterIsNeutralAndAirMakesItSour) {
  EXPECT_NEAR(equilibrate({}, at(25))->ph, 7.00, 0.005);
  EXPECT_NEAR(equilibrate({}, at(0))->ph, 7.47, 0.02); // pKw 14.94 at 0 degC, CRC Handbook, from memory
  auto open = at(25);
  open.carbonDioxideAtm = std::pow(10, -3.5); // Stumm & Morgan 1996, from memory: pH 5.65
  EXPECT_NEAR(equilibrate({}, open)->ph, 5.65, 0.02);
}

TEST(Equilibrium, StandardBuffersReadTheirPh) {
  for (const auto& row : test::readTextTable("ph_buffers.txt")) {
    const auto settled = equilibrate(buffer(row[0]), at(*parseDecimal(row[1])));
    ASSERT_TRUE(settled) << row[0];
    EXPECT_NEAR(settled->ph, *parseDecimal(row[2]), *parseDecimal(row[3])) << row[0] << " at " << row[1];
  }
}

// CRC Handbook, g CaSO4 per kg of water (from memory): 1.759, 1.928, 2.08, 2.12 at 0, 10, 25, 40 degC.
TEST(Equilibrium, GypsumDissolvesAsTheHandbookSays) {
  for (const auto& [celsius, grams] : {std::pair{0.0, 1.759}, {10.0, 1.928}, {25.0, 2.08}, {40.0, 2.12}}) {
    auto conditions = at(celsius);
    conditions.solids = {phase("gypsum", celsius)};
    const double found = dissolvedCalcium(make({{C::Ca, 0.1}, {C::SO4, 0.1}}), conditions) * 136.14;
    EXPECT_NEAR(found, grams, 0.05 * grams) << celsius;
  }
}

// Cameron & Seidell 1901, in Seidell's Solubilities (from memory): g/L of CaSO4 beside CaCl2 or Na2SO4 at 25
// degC. The parameters of pitzer.dat put the strongest 8 % too high.
TEST(Equilibrium, ASharedIonDrivesGypsumOut) {
  auto conditions = at(25);
  conditions.solids = {phase("gypsum", 25)};
  for (const auto& [chloride, grams] :
       {std::pair{7.489, 1.244}, {11.96, 1.181}, {25.77, 1.096}, {51.53, 1.016}}) {
    const double mol = chloride / 110.98;
    const auto settled = equilibrate(make({{C::Ca, 0.1 + mol}, {C::SO4, 0.1}, {C::Cl, 2 * mol}}), conditions);
    EXPECT_NEAR((0.1 - settled->solidMol[0]) * 136.14, grams, 0.10 * grams) << chloride;
  }
  for (const auto& [sulfate, grams] : {std::pair{2.39, 1.650}, {9.535, 1.457}, {14.132, 1.388}}) {
    const double mol = sulfate / 142.04;
    const auto settled = equilibrate(make({{C::Ca, 0.1}, {C::SO4, 0.1 + mol}, {C::Na, 2 * mol}}), conditions);
    EXPECT_NEAR((0.1 - settled->solidMol[0]) * 136.14, grams, 0.08 * grams) << sulfate;
  }
}

// Stumm & Morgan 1996, chapter 4 (from memory): calcite and pure water, closed: pH 9.9, Ca 1.2e-4 mol/L; open
// to air at 10^-3.5 atm: pH 8.3, Ca 4.9e-4, alkalinity 1.0e-3. Under 1 atm of CO2: pH 6.0, Ca about 9e-3.
TEST(Equilibrium, CalciteWorkedExamplesComeOut) {
  auto conditions = at(25);
  conditions.solids = {phase("calcite", 25)};
  const auto lime = make({{C::Ca, 0.05}, {C::Carbonate, 0.05}}, 0.1);
  const auto closed = equilibrate(lime, conditions);
  EXPECT_NEAR(closed->ph, 9.9, 0.05);
  EXPECT_NEAR(dissolvedCalcium(lime, conditions), 1.2e-4, 0.08e-4);
  conditions.carbonDioxideAtm = std::pow(10, -3.5);
  EXPECT_NEAR(equilibrate(lime, conditions)->ph, 8.3, 0.05);
  EXPECT_NEAR(dissolvedCalcium(lime, conditions), 4.9e-4, 0.15e-4);
  conditions.carbonDioxideAtm = 1;
  EXPECT_NEAR(equilibrate(lime, conditions)->ph, 6.0, 0.05);
  EXPECT_NEAR(dissolvedCalcium(lime, conditions), 9.1e-3, 0.5e-3);
}

TEST(Equilibrium, MassAndChargeCloseOnThousandsOfRandomMixtures) {
  const auto& data = EquilibriumData::instance();
  std::mt19937 random(7);
  for (int n = 0; n < 2000; ++n) {
    const auto totals = randomTotals(random);
    auto conditions = at(45 * (random() / 4294967296.0));
    const bool open = random() % 4 == 0;
    if (open) conditions.carbonDioxideAtm = airCarbonDioxideAtm;
    const auto settled = equilibrate(totals, conditions);
    ASSERT_TRUE(settled) << n;
    std::array<double, componentCount> found{};
    double charge = 0, charges = 0;
    for (std::size_t i = 0; i < data.species().size(); ++i) {
      const double molality = settled->molality[i];
      charge += data.species()[i].charge * molality;
      charges += std::abs(data.species()[i].charge) * molality;
      for (const auto& [component, power] : data.species()[i].made.components)
        found[component] += power * molality;
    }
    for (std::size_t i = 0; i < totals.chelateMol.size(); ++i)
      charge -= static_cast<double>(i + 1) * totals.chelateMol[i];
    EXPECT_LE(std::abs(charge), 1e-9 * charges) << n;
    for (std::size_t i = 0; i < componentCount; ++i) {
      if (open && allComponents[i] == C::Carbonate) continue;
      EXPECT_NEAR(found[i], totals.mol[i], 1e-9 * totals.mol[i])
          << n << " " << componentSpecies(allComponents[i]);
    }
  }
}

TEST(Equilibrium, WhatFallsAndWhatStaysMakeUpTheWhole) {
  std::mt19937 random(11);
  for (int n = 0; n < 200; ++n) {
    auto totals = randomTotals(random);
    auto conditions = at(20);
    for (const char* name : {"gypsum", "calcite", "brushite", "struvite", "amorphous_silica"})
      conditions.solids.push_back(phase(name, 20));
    const auto settled = equilibrate(totals, conditions);
    ASSERT_TRUE(settled) << n;
    const auto& data = EquilibriumData::instance();
    double calcium = settled->solidMol[0] + settled->solidMol[1] + settled->solidMol[2];
    for (std::size_t i = 0; i < data.species().size(); ++i) {
      for (const auto& [component, power] : data.species()[i].made.components) {
        if (allComponents[component] == C::Ca) calcium += power * settled->molality[i];
      }
    }
    EXPECT_NEAR(calcium, totals.of(C::Ca), 1e-9 * totals.of(C::Ca)) << n;
    for (std::size_t k = 0; k < conditions.solids.size(); ++k) {
      const auto& solid = conditions.solids[k];
      const double over = settled->lnIonProduct(solid.dissolved) - solid.lnSolubilityProduct;
      EXPECT_GE(settled->solidMol[k], 0);
      if (settled->solidMol[k] > 0)
        EXPECT_NEAR(over, 0, 1e-6) << n;
      else
        EXPECT_LE(over, 1e-6) << n;
    }
  }
}

TEST(Equilibrium, EveryStockThatDissolvesConvergesFromZeroToSeveralMol) {
  for (const double m : {0.0, 1e-9, 1e-5, 1e-2, 0.5, 2.0, 6.0, 12.0}) {
    for (const double celsius : {0.0, 12.0, 45.0}) {
      EXPECT_TRUE(equilibrate(make({{C::Ca, m}, {C::NO3, 2 * m}}), at(celsius))) << m;
      EXPECT_TRUE(equilibrate(make({{C::K, 2 * m}, {C::SO4, m}}), at(celsius))) << m;
      EXPECT_TRUE(equilibrate(make({{C::K, m}, {C::Phosphate, m}, {C::Mg, m}, {C::SO4, m}}), at(celsius)))
          << m;
      EXPECT_TRUE(equilibrate(make({{C::NO3, m}}, -m), at(celsius))) << m; // nitric acid
      EXPECT_TRUE(equilibrate(make({{C::K, m}}, m), at(celsius))) << m;    // potassium hydroxide
      EXPECT_TRUE(equilibrate(make({{C::K, 2 * m}, {C::Silicon, m}}, 2 * m), at(celsius))) << m;
    }
  }
}

TEST(Equilibrium, TheStartNeverChangesTheAnswer) {
  const auto feed = make({{C::K, 5e-3},
                          {C::Ca, 4e-3},
                          {C::Mg, 1e-3},
                          {C::NO3, 1.3e-2},
                          {C::Phosphate, 1e-3},
                          {C::SO4, 1e-3},
                          {C::Carbonate, 2e-3}},
                         5e-4);
  const double ph = equilibrate(feed, at(20))->ph;
  auto other = feed;
  for (const double factor : {0.01, 1.0, 30.0}) {
    for (const double alkalinity : {-0.2, 0.0, 0.4}) {
      auto conditions = at(20);
      other = feed.scaled(factor);
      other.alkalinityEq = alkalinity;
      const auto start = equilibrate(other, conditions);
      conditions.start = &*start;
      EXPECT_NEAR(equilibrate(feed, conditions)->ph, ph, 1e-8) << factor << " " << alkalinity;
    }
  }
}

TEST(Equilibrium, WhatFellAsACarbonateIsStillOfTheGivenCarbonate) {
  Solutes s;
  s.of(C::Ca) = 0.004;
  s.of(C::Carbonate) = 0.006;
  s.of(C::Cl) = 0.002;
  s.alkalinityEq = 0.006;
  const auto& data = EquilibriumData::instance();
  EquilibriumConditions conditions;
  const auto calcite = *data.solidIndex("calcite");
  conditions.solids = {
      {data.solids()[calcite].dissolved, data.at(conditions.temperature).lnSolubility[calcite]}};
  const auto fallen = equilibrate(s, conditions);
  ASSERT_TRUE(fallen);
  EXPECT_GT(fallen->solidMol[0], 0.0005);
  EXPECT_EQ(fallen->carbonateMol, 0.006);
  double dissolved = 0;
  for (std::size_t i = 0; i < data.species().size(); ++i) {
    for (const auto& [component, count] : data.species()[i].made.components)
      dissolved += component == static_cast<std::size_t>(C::Carbonate) ? count * fallen->molality[i] : 0;
  }
  EXPECT_NEAR(dissolved + fallen->solidMol[0], 0.006, 1e-12);
  // From where it settled it settles there again.
  auto again = conditions;
  again.start = &*fallen;
  const auto same = equilibrate(s, again);
  ASSERT_TRUE(same);
  EXPECT_NEAR(same->solidMol[0], fallen->solidMol[0], 1e-11);
}

TEST(Equilibrium, AHeldPhTellsTheAlkalinityThatWouldMakeIt) {
  const auto water = make({{C::Ca, 2e-3}, {C::Carbonate, 4e-3}}, 3.5e-3);
  const double ph = equilibrate(water, at(20))->ph;
  auto held = at(20);
  held.ph = ph;
  auto unknown = water;
  unknown.alkalinityEq = 0;
  EXPECT_NEAR(equilibrate(unknown, held)->alkalinityEq, 3.5e-3, 1e-10);
  EXPECT_NEAR(*carbonateFor(water, ph, Temperature::fromCelsius(20)), 4e-3, 1e-9);
}

TEST(Equilibrium, OutsideItsRangeItSaysSo) {
  EXPECT_EQ(equilibrate({}, at(46)).problem().where, "temperature_c");
  EXPECT_EQ(equilibrate({}, at(-1)).problem().where, "temperature_c");
  EXPECT_EQ(equilibrate(make({{C::K, 61}}), at(20)).problem().where, "K+");
  EXPECT_EQ(equilibrate(make({{C::K, std::nan("")}}), at(20)).problem().where, "K+");
  auto held = at(20);
  held.ph = 15;
  EXPECT_EQ(equilibrate({}, held).problem().where, "ph");
  auto open = at(20);
  open.carbonDioxideAtm = 0;
  EXPECT_EQ(equilibrate({}, open).problem().where, "pco2_atm");
}

// Common practice: hard well water left standing climbs, since it holds more carbon dioxide than the air.
TEST(Equilibrium, HardWaterClimbsAsItStandsAndRainHardlyMoves) {
  const auto well = make({{C::Ca, 2e-3}, {C::Carbonate, 4.5e-3}}, 4e-3);
  auto open = at(20);
  open.carbonDioxideAtm = airCarbonDioxideAtm;
  EXPECT_GT(equilibrate(well, open)->ph, equilibrate(well, at(20))->ph + 0.8);
}

TEST(Activity, MeanActivityCoefficientsAreThoseOfTheTables) {
  for (const auto& row : test::readTextTable("mean_activity.txt")) {
    const auto pure = compositionFromFormula(row[0], 100);
    ASSERT_TRUE(pure) << row[0];
    const auto perMole = pure->solutesPerGram.scaled(pure->formula->molarMassGPerMol);
    const double m = *parseDecimal(row[1]);
    const auto settled = equilibrate(perMole.scaled(m), at(25));
    ASSERT_TRUE(settled) << row[0];
    // Stoichiometric: (product of activities over the product of total molalities)^(1/ions).
    double ln = 0, ions = 0;
    for (std::size_t i = 0; i < componentCount; ++i) {
      if (perMole.mol[i] < 1e-9) continue;
      double activity = settled->lnActivity[i];
      if (allComponents[i] == C::Phosphate) activity = std::log(0.0);
      ln += perMole.mol[i] * (activity - std::log(perMole.mol[i] * m));
      ions += perMole.mol[i];
    }
    if (perMole.of(C::Phosphate) > 0) { // dihydrogen phosphate is what is measured
      const auto& data = EquilibriumData::instance();
      const auto species = *data.speciesIndex("H2PO4-");
      const double activity = data.at(Temperature::fromCelsius(25)).lnFormation[species] +
                              settled->lnActivity[static_cast<std::size_t>(C::Phosphate)] +
                              2 * settled->lnHydrogen;
      ln = settled->lnActivity[static_cast<std::size_t>(C::K)] + activity - 2 * std::log(m);
    }
    const double expected = *parseDecimal(row[2]);
    EXPECT_NEAR(std::exp(ln / ions), expected, expected * *parseDecimal(row[3]) / 100)
        << row[0] << " " << row[1];
  }
}
