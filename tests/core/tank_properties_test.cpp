/// What must hold for any formula in any tanks, on random ones.
#include "stock/cold_nights.h"
#include "stock/component_nutrients.h"
#include "stock/stock.h"
#include "support/random_formula.h"

#include <numeric>

using namespace butte;
using namespace butte::core;

namespace {

struct Case {
  SolveRequest request;
  std::vector<Mass> grams;
  StockPlan plan;

  StockAnswer stock() const { return planStock(request.shelf, grams, request.volume, plan); }
};

Case randomCase(std::mt19937& random) {
  const auto unit = [&] { return random() / 4294967296.0; };
  Case out;
  do {
    out.request = test::randomRequest(random);
    const auto answer = solve(out.request);
    out.grams = answer ? answer->grams : std::vector<Mass>();
  } while (out.grams.empty());
  out.plan.factor = 50 + 250 * unit();
  out.plan.temperature = Temperature::fromCelsius(4 + 20 * unit());
  out.plan.tanks = {{"A", test::litres(20 + 100 * unit())}, {"B", test::litres(20 + 100 * unit())}};
  if (unit() < 0.3) out.plan.tanks.push_back({"C", test::litres(50)});
  if (unit() < 0.3) { // a hand that knows no better
    const double share = unit();
    out.plan.shares[out.request.shelf.front().id] = {share, 1 - share};
  }
  return out;
}

} // namespace

TEST(TankProperties, EveryGramOfTheFormulaStandsInATankOrIsNamedAsApart) {
  std::mt19937 random(21);
  for (int n = 0; n < 150; ++n) {
    const auto c = randomCase(random);
    const auto stock = c.stock();
    std::vector<double> perLitre(c.grams.size());
    for (const auto& tank : stock.tanks) {
      for (const auto& item : tank.items) {
        perLitre[item.product] += item.strength.gramsPerLitre() / tank.factor;
        EXPECT_NEAR(item.mass.grams(), item.strength.gramsPerLitre() * tank.tank.volume.litres(),
                    1e-9 * (1 + item.mass.grams()));
      }
    }
    for (const auto j : stock.notPlaced)
      perLitre[j] += (c.grams[j] / c.request.volume).gramsPerLitre();
    for (std::size_t j = 0; j < c.grams.size(); ++j)
      EXPECT_NEAR(perLitre[j], (c.grams[j] / c.request.volume).gramsPerLitre(), 1e-9)
          << c.request.shelf[j].id;
  }
}

TEST(TankProperties, WhatIsDissolvedAndWhatFellIsWhatWentIn) {
  std::mt19937 random(22);
  int fell = 0;
  for (int n = 0; n < 120; ++n) {
    auto c = randomCase(random);
    c.plan.factor *= 2; // so that often something falls
    for (const auto& tank : c.stock().tanks) {
      NutrientAmounts in;
      for (const auto& item : tank.items)
        in.addScaled(c.request.shelf[item.product].composition.massFraction,
                     item.strength.gramsPerLitre() * 1000 / tank.factor);
      const auto dissolved = nutrientsIn(tank.dissolvedPerLitre.scaled(1 / tank.factor));
      fell += !tank.fallen.empty();
      for (const auto e : {Nutrient::K, Nutrient::Ca, Nutrient::Mg, Nutrient::P, Nutrient::S})
        EXPECT_NEAR(1000 * dissolved.of(e) + tank.lostMgPerLitreOfFeed.of(e), in.of(e), 1e-3 * (1 + in.of(e)))
            << nutrientKey(e);
    }
  }
  EXPECT_GT(fell, 10) << "the test saw tanks with something on the floor";
}

TEST(TankProperties, TheCeilingKeepsItsWord) {
  std::mt19937 random(23);
  int seen = 0, blunt = 0;
  for (int n = 0; n < 60; ++n) {
    auto c = randomCase(random);
    c.plan.tanks.resize(2);
    const auto first = c.stock();
    for (std::size_t t = 0; t < 2; ++t) {
      const auto& ceiling = first.tanks[t].maxFactorOfKnown;
      if (!ceiling || *ceiling < 20 || *ceiling > 900) continue;
      ++seen;
      // The same salts in the same tanks, a little below and a little above.
      auto fixed = c;
      for (std::size_t j = 0; j < c.request.shelf.size(); ++j) {
        std::vector<double> shares(2, 0.0);
        const double feed = (c.grams[j] / c.request.volume).gramsPerLitre();
        for (std::size_t k = 0; k < 2 && feed > 0; ++k) {
          for (const auto& item : first.tanks[k].items) {
            if (item.product == j) shares[k] = item.strength.gramsPerLitre() / first.tanks[k].factor / feed;
          }
        }
        fixed.plan.shares[c.request.shelf[j].id] = shares;
      }
      fixed.plan.factor = *ceiling * 0.97;
      EXPECT_TRUE(fixed.stock().tanks[t].fallen.empty()) << "below its ceiling of " << *ceiling;
      fixed.plan.factor = *ceiling * 1.03;
      if (!fixed.stock().tanks[t].fallen.empty()) continue;
      // A mineral that the falling pH of a stronger tank keeps from coming nearer has no sharp ceiling: what
      // is said then errs to the safe side.
      EXPECT_FALSE(first.tanks[t].limitingSolid.empty()) << "above its ceiling of " << *ceiling;
      ++blunt;
    }
  }
  EXPECT_GT(seen, 30);
  EXPECT_LT(blunt, seen / 10);
}

TEST(TankProperties, TheSafeStrengthIsTheCeilingLessTheMargin) {
  std::mt19937 random(24);
  for (int n = 0; n < 40; ++n) {
    auto c = randomCase(random);
    c.plan.marginPercent = 20;
    for (const auto& tank : c.stock().tanks) {
      if (!tank.maxFactorOfKnown) continue;
      EXPECT_NEAR(*tank.safeFactor, 0.8 * *tank.maxFactorOfKnown, 1e-9);
    }
  }
}

TEST(TankProperties, AFinishedLitreWeighsItsWaterAndItsSalts) {
  std::mt19937 random(25);
  for (int n = 0; n < 60; ++n) {
    for (const auto& tank : randomCase(random).stock().tanks) {
      if (tank.items.empty() || tank.waterKgPerLitre <= 0) continue;
      double salts = 0;
      for (const auto& item : tank.items)
        salts += item.strength.gramsPerLitre() / 1000;
      // Water poured in (0.997 kg a litre) and all that was weighed.
      EXPECT_NEAR(tank.densityKgPerLitre, tank.addedWaterLitresPerLitre * 0.99705 + salts, 1e-6);
      EXPECT_GT(tank.densityKgPerLitre, 0.99);
      EXPECT_LT(tank.addedWaterLitresPerLitre, 1.003) << "never more than the mark";
    }
  }
}

// ---- Ceilings ------------------------------------------------------------------------------------------

namespace {

std::optional<double> ceilingOf(const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& grams,
                                double factor, double celsius) {
  StockPlan plan;
  plan.factor = factor;
  plan.temperature = Temperature::fromCelsius(celsius);
  plan.tanks = {{"A", test::litres(10)}};
  for (const auto& product : shelf)
    plan.shares[product.id] = {1};
  return planStock(shelf, grams, test::litres(1), plan).tanks[0].maxFactorOfKnown;
}

struct Mixture {
  std::vector<ShelfProduct> shelf;
  std::vector<Mass> grams;
};

/// Two to four salts that growers put into one tank.
Mixture randomMixture(std::mt19937& random) {
  const std::vector<std::vector<const char*>> sets{{"Ca(NO3)2·4H2O", "KNO3", "Mg(NO3)2·6H2O", "NH4NO3"},
                                                   {"K2SO4", "MgSO4·7H2O", "KH2PO4", "KNO3"},
                                                   {"MgSO4·7H2O", "(NH4)2SO4", "NH4H2PO4", "KNO3"},
                                                   {"MgSO4·7H2O", "K2SO4", "ZnSO4·7H2O", "MnSO4·H2O"},
                                                   {"CaCl2·2H2O", "KCl", "KNO3", "MgCl2·6H2O"}};
  const auto unit = [&] { return random() / 4294967296.0; };
  const auto& set = sets[random() % sets.size()];
  Mixture out;
  const auto first = random() % set.size();
  for (std::size_t i = 0; i < 2 + random() % 3 && i < set.size(); ++i) {
    out.shelf.push_back(test::salt(set[(first + i) % set.size()]));
    out.grams.push_back(test::grams(0.05 + unit()));
  }
  return out;
}

} // namespace

TEST(CeilingProperties, ThePlannedFactorIsNoPartOfTheCeiling) {
  std::mt19937 random(61);
  for (int n = 0; n < 60; ++n) {
    const auto mixture = randomMixture(random);
    const double celsius = 5 + random() % 20;
    const auto one = ceilingOf(mixture.shelf, mixture.grams, 50, celsius);
    ASSERT_TRUE(one);
    for (const double factor : {200.0, 700.0, 1600.0})
      EXPECT_NEAR(*ceilingOf(mixture.shelf, mixture.grams, factor, celsius) / *one, 1, 1e-6);
  }
}

// A jump would not get smaller with the step.
TEST(CeilingProperties, NoCeilingJumpsWithTheTemperature) {
  std::mt19937 random(62);
  for (int n = 0; n < 20; ++n) {
    const auto mixture = randomMixture(random);
    for (double celsius = 2.2; celsius <= 29; celsius += 2.3) {
      const auto here = ceilingOf(mixture.shelf, mixture.grams, 100, celsius);
      const auto there = ceilingOf(mixture.shelf, mixture.grams, 100, celsius + 0.01);
      ASSERT_TRUE(here && there) << celsius;
      EXPECT_LT(std::abs(std::log(*there / *here)), 0.006) << celsius << " degC, mixture " << n;
    }
  }
}

TEST(CeilingProperties, NoCeilingJumpsWithTheComposition) {
  std::mt19937 random(63);
  for (int n = 0; n < 25; ++n) {
    const auto mixture = randomMixture(random);
    for (double more = 0.02; more <= 1; more *= 1.1) {
      auto grams = mixture.grams;
      grams.back() = mixture.grams.back() * more;
      const auto here = ceilingOf(mixture.shelf, grams, 100, 20);
      grams.back() = grams.back() * 1.001;
      const auto there = ceilingOf(mixture.shelf, grams, 100, 20);
      ASSERT_TRUE(here && there);
      EXPECT_LT(std::abs(std::log(*there / *here)), 0.003) << more << " of the last, mixture " << n;
    }
  }
}

TEST(CeilingProperties, SaturationIsTheStrengthOverTheCeilingAndAgreesWithWhatFalls) {
  std::mt19937 random(64);
  int fell = 0;
  for (int n = 0; n < 120; ++n) {
    const auto mixture = randomMixture(random);
    StockPlan plan;
    plan.factor = 50 * std::pow(2, n % 6);
    plan.temperature = Temperature::fromCelsius(5 + random() % 20);
    plan.tanks = {{"A", test::litres(10)}};
    for (const auto& product : mixture.shelf)
      plan.shares[product.id] = {1};
    const auto tank = planStock(mixture.shelf, mixture.grams, test::litres(1), plan).tanks[0];
    ASSERT_TRUE(tank.maxFactorOfKnown && !tank.solids.empty());
    const double most = tank.solids.front().saturation;
    EXPECT_NEAR(most, tank.factor / *tank.maxFactorOfKnown, 1e-6 * most);
    EXPECT_EQ(most > 1 + 1e-9, !tank.fallen.empty()) << most << " at " << plan.factor;
    fell += !tank.fallen.empty();
  }
  EXPECT_GT(fell, 20);
}

TEST(CeilingProperties, ALabelledCalciumNitrateIsItsFormulaTwin) {
  auto labelled = test::salt("5Ca(NO3)2·NH4NO3·10H2O");
  const auto label = compositionFromLabel({{"N_NO3", 14.4}, {"N_NH4", 1.1}, {"CaO", 26.3}});
  ASSERT_TRUE(label);
  labelled.composition = label->composition;
  ASSERT_FALSE(labelled.composition.formula);
  const auto twin = ceilingOf({test::salt("5Ca(NO3)2·NH4NO3·10H2O")}, {test::grams(1)}, 100, 20);
  const auto found = ceilingOf({labelled}, {test::grams(1)}, 100, 20);
  ASSERT_TRUE(twin && found);
  EXPECT_NEAR(*found / *twin, 1, 0.02);
}

// Common practice: magnesium with potassium or ammonium sulfate gives a double salt that is less soluble than
// either alone.
TEST(CeilingProperties, DoubleSaltsAreNamedWhenTheyComeFirst) {
  for (const auto& [other, name] : {std::pair{"K2SO4", "picromerite"}, {"(NH4)2SO4", "boussingaultite"}}) {
    StockPlan plan;
    plan.factor = 400;
    plan.temperature = Temperature::fromCelsius(20);
    plan.tanks = {{"B", test::litres(10)}};
    const auto tank = planStock({test::salt("MgSO4·7H2O"), test::salt(other)},
                                {test::grams(1.2), test::grams(0.25)}, test::litres(1), plan)
                          .tanks[0];
    ASSERT_FALSE(tank.solids.empty());
    EXPECT_EQ(tank.solids.front().name, name);
    EXPECT_EQ(tank.limitingSolid, name);
  }
}
