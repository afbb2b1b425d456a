// What is needed ahead, what it costs, and what a kilogram of an element costs from each product.
#include "shelf/element_prices.h"
#include "shelf/need.h"
#include "shelf/shelf_costs.h"

#include <cmath>
#include <gtest/gtest.h>
#include <random>

namespace butte::core {
namespace {

constexpr std::int64_t week = 7 * 86400, now = 1'800'000'000;

ShelfEvent used(std::int64_t at, double grams, const char* batch = "b") {
  return {at, shelved::Used{"kno3", Mass::fromGrams(grams), {}, batch}};
}

std::vector<ShelfEvent> everyWeek(int from, int to, double grams) {
  std::vector<ShelfEvent> out;
  for (int w = from; w < to; ++w)
    out.push_back(used(now + w * week + 3600, grams));
  return out;
}

TEST(NeedAhead, GoesOnAsTheLastWeeksWere) {
  const auto need = needAhead("kno3", everyWeek(-10, 0, 2000), now, 6);
  EXPECT_EQ(need.from, NeedFrom::Present);
  ASSERT_EQ(need.weeks.size(), 6u);
  EXPECT_NEAR(need.mean.grams(), 12000, 1e-6);
  EXPECT_NEAR(need.high.grams(), 12000, 1e-6) << "every week alike leaves nothing open";
}

TEST(NeedAhead, FollowsLastYearsSeasonAtThisYearsSize) {
  auto events = everyWeek(-60, -52, 1000); // the same weeks of last year as the last eight
  const auto ahead = everyWeek(-52, -48, 4000);
  const auto lately = everyWeek(-8, 0, 1500); // half as much again as last year
  events.insert(events.end(), ahead.begin(), ahead.end());
  events.insert(events.end(), lately.begin(), lately.end());
  const auto need = needAhead("kno3", events, now, 6);
  EXPECT_EQ(need.from, NeedFrom::LastYear);
  EXPECT_NEAR(need.weeks[0].mean.grams(), 6000, 1e-6);
  EXPECT_NEAR(need.weeks[5].mean.grams(), 0, 1e-6) << "nothing was used then";
}

TEST(NeedAhead, PutsPlannedFeedOnTopOfWhatElseIsUsed) {
  const std::vector<Mass> plan(4, Mass::fromGrams(500));
  const auto need = needAhead("kno3", everyWeek(-8, 0, 100), now, 4, plan);
  EXPECT_EQ(need.from, NeedFrom::Plan);
  EXPECT_NEAR(need.mean.grams(), 2400, 1e-6);
  EXPECT_NEAR(need.high.grams(), 2400 + 0.2 * 2000, 1e-6);
  EXPECT_EQ(needAhead("kno3", {}, now, 4).from, NeedFrom::Nothing);
}

// Weeks drawn at random, forecast many times: nine in ten sums have to lie in the band.
TEST(NeedAhead, ItsBandHoldsNineInTen) {
  std::mt19937 random(9);
  std::normal_distribution<double> grams(1000, 150);
  int inside = 0;
  constexpr int trials = 2000, ahead = 4;
  for (int t = 0; t < trials; ++t) {
    std::vector<ShelfEvent> events;
    for (int w = -8; w < 0; ++w)
      events.push_back(used(now + w * week + 3600, grams(random)));
    double came = 0;
    for (int w = 0; w < ahead; ++w)
      came += grams(random);
    const auto need = needAhead("kno3", events, now, ahead);
    inside += came >= need.low.grams() && came <= need.high.grams();
  }
  EXPECT_NEAR(inside / double(trials), 0.9, 0.02);
}

TEST(WeeksUntilOut, CountsWeekByWeek) {
  Need need;
  need.weeks = {{Mass::fromGrams(100), {}, {}}, {Mass::fromGrams(300), {}, {}}};
  EXPECT_NEAR(*weeksUntilOut(Mass::fromGrams(250), need), 1.5, 1e-12);
  EXPECT_NEAR(*weeksUntilOut(Mass{}, need), 0, 1e-12);
  EXPECT_FALSE(weeksUntilOut(Mass::fromGrams(500), need));
}

ShelfLot lotOf(std::int64_t at, double bagKg, std::optional<double> price, const char* currency = "EUR") {
  ShelfLot lot;
  lot.id = std::to_string(at);
  lot.product = "kno3";
  lot.boughtAtSeconds = at;
  lot.bag = Mass::fromKilograms(bagKg);
  lot.pricePerBag = price;
  lot.currency = currency;
  return lot;
}

TEST(ShelfCosts, PaidByTheLotAndByTodaysPrice) {
  const std::vector lots{lotOf(1, 10, 20), lotOf(50, 25, 75), lotOf(90, 25, std::nullopt)};
  const std::vector events{used(60, 12000, "one"), used(95, 1000, "two")};
  const auto account = shelfAccount(lots, events);
  const auto today = pricesToday(lots, 100);
  const auto costs = batchCosts(lots, events, account, today);
  EXPECT_NEAR(costs.at("one").paid.money[0].amount, 10 * 2 + 2 * 3, 1e-9);
  EXPECT_NEAR(costs.at("one").today.money[0].amount, 12 * 3, 1e-9) << "the newest price that is known";
  EXPECT_NEAR(costs.at("two").paid.money[0].amount, 3, 1e-9);
  EXPECT_EQ(priceHistory("kno3", lots).size(), 2u);
  EXPECT_NEAR(pricesToday(lots, 10).at("kno3").perKg.amount, 2, 1e-12) << "as it was then";
}

TEST(ShelfCosts, TwoCurrenciesAreNeverAddedUp) {
  const std::vector lots{lotOf(1, 1, 2), lotOf(2, 5, 20, "USD")};
  const std::vector events{used(60, 3000, "one")};
  const auto costs = batchCosts(lots, events, shelfAccount(lots, events), pricesToday(lots, 100));
  const auto& paid = costs.at("one").paid.money;
  ASSERT_EQ(paid.size(), 2u);
  EXPECT_EQ(paid[0], (Money{"EUR", 2}));
  EXPECT_EQ(paid[1].currency, "USD");
  EXPECT_NEAR(paid[1].amount, 8, 1e-9);
}

ShelfProduct salt(const char* id, std::vector<std::pair<Nutrient, double>> contents, double price) {
  ShelfProduct out;
  out.id = id;
  for (const auto& [nutrient, share] : contents)
    out.composition.massFraction.add(nutrient, share);
  out.pricePerKg = price;
  return out;
}

// By hand: N is worth 1/0.155 at the margin only through the calcium nitrate where Ca comes along, and so on.
TEST(ElementPrices, AProductOfSeveralSharesItsPriceByWhatTheyAreWorth) {
  const std::vector shelf{salt("kno3", {{Nutrient::NNitrate, 0.13}, {Nutrient::K, 0.38}}, 1.2),
                          salt("k2so4", {{Nutrient::K, 0.42}}, 0.8),
                          salt("nh4no3", {{Nutrient::NNitrate, 0.17}, {Nutrient::NAmmonium, 0.17}}, 0.5)};
  const std::vector<WantedElement> wanted{{Nutrient::N, 100}, {Nutrient::K, 200}};
  const auto prices = elementPrices(shelf, wanted);
  ASSERT_TRUE(prices);
  // Cheapest: kno3 costs 1.2, its N is worth 0.13 * 0.5/0.34 and its K 0.38 * 0.8/0.42: less; it stays shut.
  EXPECT_NEAR(*prices->marginalPerKg[0], 0.5 / 0.34, 1e-9);
  EXPECT_NEAR(*prices->marginalPerKg[1], 0.8 / 0.42, 1e-9);
  EXPECT_NEAR(prices->cheapest, 0.1 * 0.5 / 0.34 + 0.2 * 0.8 / 0.42, 1e-9);
  double shared = 0;
  for (const auto& source : prices->sources)
    if (source.product == 0) {
      EXPECT_TRUE(source.isShared);
      shared += source.pricePerKg * (source.nutrient == Nutrient::N ? 0.13 : 0.38);
    }
  EXPECT_NEAR(shared, 1.2, 1e-9) << "the shares are the whole price";
  EXPECT_FALSE(elementPrices(shelf, {{Nutrient::Ca, 100}})) << "nothing brings it";
  EXPECT_FALSE(elementPrices(shelf, {}));
}

// Strong duality on random shelves: the cheapest feed found by trying every pair of products costs the same.
TEST(ElementPrices, TheDualIsWorthWhatTheCheapestFeedCosts) {
  std::mt19937 random(3);
  std::uniform_real_distribution<double> share(0.02, 0.4), price(0.3, 4);
  for (int t = 0; t < 200; ++t) {
    std::vector<ShelfProduct> shelf;
    for (int p = 0; p < 5; ++p)
      shelf.push_back(
          salt("p", {{Nutrient::K, share(random)}, {Nutrient::Mg, share(random)}}, price(random)));
    const double k = 150, mg = 40;
    const auto content = [&](std::size_t p, Nutrient n) { return shelf[p].composition.massFraction.of(n); };
    double least = 1e9;
    for (std::size_t a = 0; a < 5; ++a) {
      const double alone = std::max(k / content(a, Nutrient::K), mg / content(a, Nutrient::Mg));
      least = std::min(least, alone * *shelf[a].pricePerKg);
      for (std::size_t b = 0; b < a; ++b) {
        const double ak = content(a, Nutrient::K), am = content(a, Nutrient::Mg),
                     bk = content(b, Nutrient::K), bm = content(b, Nutrient::Mg), det = ak * bm - bk * am;
        const double x = (k * bm - bk * mg) / det, y = (ak * mg - k * am) / det;
        if (x >= 0 && y >= 0) least = std::min(least, x * *shelf[a].pricePerKg + y * *shelf[b].pricePerKg);
      }
    }
    const auto found = elementPrices(shelf, {{Nutrient::K, k}, {Nutrient::Mg, mg}});
    ASSERT_TRUE(found);
    EXPECT_NEAR(found->cheapest, least / 1000, 1e-6 * least);
  }
}

} // namespace
} // namespace butte::core
