#include "stock/tank_rounding.h"

#include "support/shelf_builder.h"

#include <cmath>
#include <gtest/gtest.h>

using namespace butte;
using namespace butte::core;

namespace {

/// Small tanks and a coarse scale: rounding shows.
struct Bench {
  SolveRequest request;
  std::vector<Mass> grams;
  StockPlan plan;
  std::vector<Scale> scales{{"kitchen", test::grams(5), test::grams(5000)}};

  Bench() {
    request.water = test::waterOf({{"Ca", 20}, {"HCO3", 60}});
    request.shelf = {test::salt("Ca(NO3)2·4H2O"), test::salt("KNO3"), test::salt("KH2PO4"),
                     test::salt("MgSO4·7H2O"), test::salt("K2SO4")};
    request.rows = {{Nutrient::N, 150},  {Nutrient::P, 40},  {Nutrient::K, 230},
                    {Nutrient::Ca, 140}, {Nutrient::Mg, 35}, {Nutrient::S, 80}};
    grams = solve(request)->grams;
    plan.tanks = {{"A", test::litres(25)}, {"B", test::litres(20)}};
    plan.factor = 50;
  }
  StockAnswer stock() const { return planStock(request.shelf, grams, request.volume, plan); }

  /// What the feed of these weights is moved by from that of the others, worked out here from scratch.
  double movedBy(const std::vector<std::vector<Mass>>& tanks, const std::vector<std::vector<Mass>>& from,
                 const StockAnswer& stock) const {
    double sum = 0;
    for (const auto& row : request.rows) {
      double mg = 0;
      for (std::size_t t = 0; t < tanks.size(); ++t) {
        const double litres = stock.tanks[t].tank.volume.litres() * stock.tanks[t].factor;
        for (std::size_t j = 0; j < request.shelf.size(); ++j)
          mg += 1000 * (tanks[t][j].grams() - from[t][j].grams()) / litres *
                request.shelf[j].composition.massFraction.of(row.nutrient);
      }
      const double miss = mg / row.divisor();
      sum += row.weight * miss * miss;
    }
    return sum;
  }
};

bool isWhole(double x) {
  return std::abs(x - std::round(x)) < 1e-9;
}

} // namespace

TEST(TankRounding, EveryWeightStandsOnItsScalesStep) {
  const Bench bench;
  const auto stock = bench.stock();
  const auto rounded = roundTanksTogether(bench.request, bench.grams, stock, bench.scales);
  ASSERT_EQ(rounded.grams.size(), 2u);
  for (std::size_t t = 0; t < 2; ++t) {
    for (const auto& item : stock.tanks[t].items) {
      const double g = rounded.grams[t][item.product].grams();
      EXPECT_TRUE(isWhole(g / 5)) << g;
      EXPECT_NEAR(g, item.mass.grams(), 15) << "never far from what was computed";
    }
  }
}

TEST(TankRounding, TogetherIsNeverWorseThanOneByOneAndHereBetter) {
  const Bench bench;
  const auto stock = bench.stock();
  const auto rounded = roundTanksTogether(bench.request, bench.grams, stock, bench.scales);
  std::vector<std::vector<Mass>> single(2, std::vector<Mass>(bench.request.shelf.size()));
  for (std::size_t t = 0; t < 2; ++t) {
    for (const auto& item : stock.tanks[t].items)
      single[t][item.product] = roundedToStep(item.mass, test::grams(5));
  }
  for (std::size_t t = 0; t < 2; ++t) {
    for (const auto& item : stock.tanks[t].items)
      ASSERT_GT(item.mass.grams(), 125) << "this scale weighs it to 2 %: no pre-stock";
  }
  std::vector<std::vector<Mass>> computed(2, std::vector<Mass>(bench.request.shelf.size()));
  for (std::size_t t = 0; t < 2; ++t) {
    for (const auto& item : stock.tanks[t].items)
      computed[t][item.product] = item.mass;
  }
  EXPECT_NEAR(rounded.oneByOne, bench.movedBy(single, computed, stock), 1e-12);
  EXPECT_NEAR(rounded.misfit, bench.movedBy(rounded.grams, computed, stock), 1e-12);
  EXPECT_LT(rounded.misfit, rounded.oneByOne);
}

TEST(TankRounding, AFineScaleChangesNothing) {
  Bench bench;
  bench.scales = {{"fine", test::grams(0.01), test::grams(5000)}};
  const auto stock = bench.stock();
  const auto rounded = roundTanksTogether(bench.request, bench.grams, stock, bench.scales);
  for (std::size_t t = 0; t < 2; ++t) {
    for (const auto& item : stock.tanks[t].items)
      EXPECT_DOUBLE_EQ(rounded.grams[t][item.product].grams(),
                       roundedToStep(item.mass, test::grams(0.01)).grams());
  }
}

TEST(TankRounding, WhatNoScaleCanWeighIsLeftToThePreStock) {
  Bench bench;
  bench.request.shelf.push_back(test::salt("Na2MoO4·2H2O"));
  bench.grams.push_back(test::grams(0.0001));
  const auto stock = bench.stock();
  const auto rounded = roundTanksTogether(bench.request, bench.grams, stock, bench.scales);
  double molybdate = 0;
  for (const auto& tank : rounded.grams)
    molybdate += tank[5].grams();
  EXPECT_DOUBLE_EQ(molybdate, 0) << "a 5 g scale shows nothing";
}
