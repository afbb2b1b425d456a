#include "stock/delivered_feed.h"

#include "dose/supply.h"
#include "dose/uneven_feed.h"
#include "stock/stock_as_product.h"
#include "support/shelf_builder.h"

#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;

namespace {

/// A feed from two tanks, and all that is needed to ask what reaches the plants.
struct Bench {
  std::vector<ShelfProduct> shelf{test::salt("Ca(NO3)2·4H2O"), test::salt("KNO3"), test::salt("KH2PO4"),
                                  test::salt("MgSO4·7H2O")};
  std::vector<Mass> grams{test::grams(0.8), test::grams(0.4), test::grams(0.15), test::grams(0.4)};
  Water source = test::waterOf({{"Ca", 30}, {"HCO3", 90}});
  StockPlan plan;
  Bench() {
    plan.temperature = Temperature::fromCelsius(15);
    plan.tanks = {{"A", test::litres(50)}, {"B", test::litres(50)}};
  }
  StockAnswer stock() const { return planStock(shelf, grams, test::litres(1), plan); }
};

} // namespace

TEST(DeliveredFeed, TheFeedIsTheSameHoweverTheSaltsAreSplitWhenNothingFalls) {
  Bench bench;
  const auto whole = mix(bench.source, bench.shelf, bench.grams, test::litres(1));
  const auto water = mix(bench.source, {}, {}, test::litres(1));
  for (const double share : {0.0, 0.25, 0.5, 1.0}) {
    bench.plan.shares["KNO3"] = {share, 1 - share};
    const auto stock = bench.stock();
    const auto feed = Delivery(bench.shelf, bench.grams, test::litres(1), stock, water).feed({1, 1});
    for (const auto n : allNutrients)
      EXPECT_NEAR(feed.milligramsPerLitre.of(n), whole.milligramsPerLitre.of(n), 1e-9) << nutrientKey(n);
    EXPECT_NEAR(feed.conductivity.milliSiemensPerCm(), whole.conductivity.milliSiemensPerCm(), 2e-3);
    ASSERT_TRUE(feed.ph && whole.ph);
    EXPECT_NEAR(*feed.ph, *whole.ph, 0.01);
  }
}

TEST(DeliveredFeed, AWaterKnownByItsEcAloneIsReadWithTheSalts) {
  const Bench bench;
  WaterReport meterOnly;
  meterOnly.conductivityMsPerCm = 0.5;
  const auto stock = bench.stock();
  const auto readWith = [&](const Water& source) {
    const auto water = mix(source, {}, {}, test::litres(1));
    return Delivery(bench.shelf, bench.grams, test::litres(1), stock, water)
        .conductivity({1, 1})
        .milliSiemensPerCm();
  };
  EXPECT_NEAR(readWith(*normaliseWater(meterOnly)) - readWith(pureWater()), 0.5, 0.02);
}

TEST(DeliveredFeed, WhatFellOutIsMissingInTheFeed) {
  Bench bench;
  bench.plan.shares["MgSO4·7H2O"] = {1, 0};
  const auto stock = bench.stock();
  const auto water = mix(bench.source, {}, {}, test::litres(1));
  const auto feed = Delivery(bench.shelf, bench.grams, test::litres(1), stock, water).feed({1, 1});
  const auto whole = mix(bench.source, bench.shelf, bench.grams, test::litres(1));
  const double lostSulfur =
      whole.milligramsPerLitre.of(Nutrient::S) - feed.milligramsPerLitre.of(Nutrient::S);
  const double lostCalcium =
      whole.milligramsPerLitre.of(Nutrient::Ca) - feed.milligramsPerLitre.of(Nutrient::Ca);
  EXPECT_GT(lostSulfur, 5);
  EXPECT_NEAR(lostCalcium / lostSulfur, 40.078 / 32.06, 1e-3) << "one calcium for each sulfate: gypsum";
  EXPECT_LT(feed.conductivity, whole.conductivity);
}

TEST(DeliveredFeed, AShutSideLeavesTheOthersFeed) {
  const Bench bench;
  const auto stock = bench.stock();
  const auto water = mix(bench.source, {}, {}, test::litres(1));
  const Delivery delivery(bench.shelf, bench.grams, test::litres(1), stock, water);
  const auto onlyA = delivery.feed({1, 0}), onlyB = delivery.feed({0, 1});
  EXPECT_NEAR(onlyA.milligramsPerLitre.of(Nutrient::P), 0, 1e-9);
  EXPECT_NEAR(onlyB.milligramsPerLitre.of(Nutrient::Ca), 30, 1e-9) << "the water's";
}

// A controller on a setpoint reads right with one side shut: the plants get only A or only B (common
// practice).
TEST(DeliveredFeed, OnASetpointTheMeterReadsRightWithOneSideShut) {
  const Bench bench;
  const auto stock = bench.stock();
  const auto water = mix(bench.source, {}, {}, test::litres(1));
  const Delivery delivery(bench.shelf, bench.grams, test::litres(1), stock, water);
  const auto right = delivery.conductivity({1, 1});
  const auto shut = atSetpoint(delivery, {1, 0}, right);
  ASSERT_TRUE(shut);
  EXPECT_NEAR(shut->feed.conductivity.milliSiemensPerCm(), right.milliSiemensPerCm(), 1e-6);
  EXPECT_GT(shut->strength, 1.3);
  EXPECT_NEAR(shut->feed.milligramsPerLitre.of(Nutrient::P), 0, 1e-9);
  EXPECT_FALSE(atSetpoint(delivery, {1, 1}, Conductivity::fromMilliSiemensPerCm(0.01))) << "below the water";
}

// Common practice: 200 L at 1:100 make 20 m3, ten days at 2,000 L a day; a week's fill is 140 L.
TEST(Supply, TanksLastAsLongAsTheirFeed) {
  const Bench bench;
  auto plan = bench.plan;
  plan.tanks[0].volume = plan.tanks[1].volume = test::litres(200);
  const auto stock = planStock(bench.shelf, bench.grams, test::litres(1), plan);
  const auto supplies = suppliesOf(stock, test::litres(2000), 7);
  EXPECT_NEAR(supplies[0].feedPerFill.litres(), 20000, 1e-6);
  EXPECT_NEAR(*supplies[0].daysPerFill, 10, 1e-9);
  EXPECT_NEAR(supplies[0].fillForDays.litres(), 140, 1e-9);
  EXPECT_FALSE(suppliesOf(stock, {}, 7)[0].daysPerFill);
  const auto need = needFor(bench.grams, test::litres(1), test::litres(2000), 100);
  EXPECT_NEAR(need[0].kilograms(), 160, 1e-9);
}

// Twice the salt in the pails lasts twice as long (common practice): a setpoint halves the draw.
TEST(Supply, OnASetpointStrengthSetsOnlyHowLongThePailsLast) {
  Bench bench;
  const auto stock = bench.stock();
  const auto half = suppliesOf(stock, test::litres(100), 7, 0.5),
             whole = suppliesOf(stock, test::litres(100), 7, 1);
  EXPECT_NEAR(*half[0].daysPerFill, 2 * *whole[0].daysPerFill, 1e-9);
}

TEST(StockAsProduct, AStockOnTheShelfFeedsLikeItsSalts) {
  const Bench bench;
  const auto stock = bench.stock();
  const auto label = stockAsProduct(bench.shelf, stock.tanks[1]);
  const auto product = test::labelled("stock B", label.percentByMass);
  // 10 mL of it in a litre of feed.
  const double grams = 10 * label.densityKgPerLitre;
  double phosphorus = 0;
  for (const auto& item : stock.tanks[1].items)
    phosphorus += item.strength.milligramsPerLitre() / 100 *
                  bench.shelf[item.product].composition.massFraction.of(Nutrient::P);
  EXPECT_NEAR(grams * 1000 * product.composition.massFraction.of(Nutrient::P), phosphorus, 1e-6);
}

TEST(StockAsProduct, WhatFellOutIsNotInIt) {
  const Bench bench;
  const auto stock = bench.stock();
  auto tank = stock.tanks[1];
  const auto percentOf = [&](const TankContent& content, const std::string& key) {
    for (const auto& [name, percent] : stockAsProduct(bench.shelf, content).percentByMass)
      if (name == key) return percent;
    return 0.0;
  };
  const double whole = percentOf(tank, "P");
  tank.lostMgPerLitreOfFeed.add(Nutrient::P,
                                5); // 5 mg of every litre of feed: `factor` times as much of a stock's
  EXPECT_NEAR(whole - percentOf(tank, "P"), 5 * tank.factor / 1000 / (tank.densityKgPerLitre * 10), 1e-12);
}

TEST(UnevenFeed, AWeakTankTakesItsElementsDownAndNoOthers) {
  Bench bench;
  const auto stock = bench.stock();
  const auto water = mix(bench.source, {}, {}, test::litres(1));
  const Delivery delivery(bench.shelf, bench.grams, test::litres(1), stock, water);
  const auto planned = delivery.feed({1, 1}), uneven = unevenFeed(delivery, {}, {0.8, 1})->feed;
  // By hand: the calcium comes from the water (30 mg/L) and tank A; magnesium only from B.
  const double calcium = planned.milligramsPerLitre.of(Nutrient::Ca);
  EXPECT_NEAR(uneven.milligramsPerLitre.of(Nutrient::Ca), 30 + 0.8 * (calcium - 30), 1e-9);
  EXPECT_NEAR(uneven.milligramsPerLitre.of(Nutrient::Mg), planned.milligramsPerLitre.of(Nutrient::Mg), 1e-9);
  EXPECT_LT(uneven.conductivity, planned.conductivity);
}

TEST(UnevenFeed, AWeakTankIsTheSameAsALesserDraw) {
  Bench bench;
  const auto stock = bench.stock();
  const auto water = mix(bench.source, {}, {}, test::litres(1));
  const Delivery delivery(bench.shelf, bench.grams, test::litres(1), stock, water);
  const auto weak = unevenFeed(delivery, {1, 1}, {0.7, 1});
  const auto slow = unevenFeed(delivery, {0.7, 1}, {});
  const auto both = unevenFeed(delivery, {1.4, 1}, {0.5, 1});
  for (const auto n : allNutrients) {
    EXPECT_DOUBLE_EQ(weak->feed.milligramsPerLitre.of(n), slow->feed.milligramsPerLitre.of(n));
    EXPECT_NEAR(both->feed.milligramsPerLitre.of(n), slow->feed.milligramsPerLitre.of(n), 1e-9)
        << "a draw that makes up for the strength leaves the feed as planned";
  }
  EXPECT_DOUBLE_EQ(both->gives[0], 0.7);
}

TEST(UnevenFeed, AControllerHidesAWeakTankFromTheMeter) {
  Bench bench;
  const auto stock = bench.stock();
  const auto water = mix(bench.source, {}, {}, test::litres(1));
  const Delivery delivery(bench.shelf, bench.grams, test::litres(1), stock, water);
  const auto planned = delivery.feed({1, 1});
  const auto held = unevenFeed(delivery, {}, {0.5, 1}, planned.conductivity);
  ASSERT_TRUE(held);
  EXPECT_NEAR(held->feed.conductivity.milliSiemensPerCm(), planned.conductivity.milliSiemensPerCm(), 1e-6);
  EXPECT_GT(held->pace, 1.2);
  EXPECT_LT(held->feed.milligramsPerLitre.of(Nutrient::Ca), planned.milligramsPerLitre.of(Nutrient::Ca));
  EXPECT_GT(held->feed.milligramsPerLitre.of(Nutrient::Mg), planned.milligramsPerLitre.of(Nutrient::Mg));
  EXPECT_FALSE(unevenFeed(delivery, {}, {0, 0}, planned.conductivity)) << "nothing in either tank";
}
