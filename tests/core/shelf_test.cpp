// Lots, counts and batches: nothing is lost between them; what they cost; how long they do; which bags to
// buy.
#include "shelf/order_list.h"
#include "shelf/shelf_account.h"
#include "shelf/use_rate.h"

#include <cmath>
#include <gtest/gtest.h>
#include <random>

namespace butte::core {
namespace {

constexpr std::int64_t day = 86400, now = 1'800'000'000;

ShelfLot lotOf(const char* id, std::int64_t boughtDay, int bags, double bagKg, double price) {
  ShelfLot lot;
  lot.id = lot.mark = id;
  lot.product = "kno3";
  lot.boughtAtSeconds = boughtDay * day;
  lot.bags = bags;
  lot.bag = Mass::fromKilograms(bagKg);
  lot.pricePerBag = price;
  lot.currency = "EUR";
  return lot;
}

ShelfEvent used(std::int64_t onDay, double grams, std::vector<shelved::From> from = {}) {
  return {onDay * day, shelved::Used{"kno3", Mass::fromGrams(grams), std::move(from), "batch"}};
}

TEST(ShelfAccount, TakesTheOldestFirst) {
  const std::vector lots{lotOf("new", 10, 1, 25, 40), lotOf("old", 1, 1, 5, 10)};
  const auto account = shelfAccount(lots, {used(11, 7000)});
  EXPECT_NEAR(account.lots[1].left.grams(), 0, 1e-9);
  EXPECT_NEAR(account.lots[0].left.grams(), 23000, 1e-9);
  ASSERT_EQ(account.uses[0].from.size(), 2U);
  const auto cost = costOf(account.uses[0], lots);
  ASSERT_EQ(cost.money.size(), 1U);
  EXPECT_NEAR(cost.money[0].amount, 5 * 2 + 2 * 1.6, 1e-9) << "first in, first out";
}

TEST(ShelfAccount, TakesFromTheLotsThatWereNamed) {
  const std::vector lots{lotOf("A", 1, 1, 5, 10), lotOf("B", 2, 1, 5, 12), lotOf("C", 3, 1, 5, 14)};
  const auto account = shelfAccount(
      lots, {used(5, 3000, {{"B", Mass::fromGrams(1000)}, {"C", std::nullopt}}), used(6, 6000, {{"C", {}}})});
  EXPECT_NEAR(account.lots[1].left.grams(), 4000, 1e-9);
  EXPECT_NEAR(account.lots[2].left.grams(), 0, 1e-9) << "C first, what it lacks from the oldest";
  EXPECT_NEAR(account.lots[0].left.grams(), 2000, 1e-9);
}

TEST(ShelfAccount, WhatNoLotHeldIsSaidAndNothingFallsBelowNothing) {
  const std::vector lots{lotOf("A", 10, 1, 1, 10)};
  const auto account = shelfAccount(lots, {used(5, 300), used(11, 1500)});
  EXPECT_TRUE(account.uses[0].beforeFirstLot) << "the shelf was not kept yet";
  EXPECT_NEAR(account.uses[0].notCovered.grams(), 300, 1e-9);
  EXPECT_FALSE(account.uses[1].beforeFirstLot);
  EXPECT_NEAR(account.uses[1].notCovered.grams(), 500, 1e-9);
  EXPECT_NEAR(account.lots[0].left.grams(), 0, 1e-9);
  EXPECT_NEAR(costOf(account.uses[1], lots).unpriced.grams(), 500, 1e-9);
}

TEST(ShelfAccount, ACountCorrectsAndWasteIsKeptApart) {
  const std::vector lots{lotOf("A", 1, 2, 10, 10)};
  const auto account = shelfAccount(lots, {{3 * day, shelved::Counted{"A", Mass::fromKilograms(18)}},
                                           {4 * day, shelved::Wasted{"A", Mass::fromKilograms(3)}},
                                           used(2, 1000),
                                           {5 * day, shelved::Counted{"nobody's", Mass::fromKilograms(18)}}});
  EXPECT_NEAR(account.lots[0].corrected.kilograms(), -1, 1e-9) << "in the order of time";
  EXPECT_NEAR(account.lots[0].left.kilograms(), 15, 1e-9);
  EXPECT_NEAR(account.lots[0].wasted.kilograms(), 3, 1e-9);
}

TEST(ShelfAccount, TwoCurrenciesStayApart) {
  auto dear = lotOf("B", 2, 1, 1, 20);
  dear.currency = "USD";
  const std::vector lots{lotOf("A", 1, 1, 1, 10), dear};
  const auto account = shelfAccount(lots, {used(5, 1500)});
  const auto cost = costOf(account.uses[0], lots);
  EXPECT_EQ(cost.money, (std::vector<Money>{{"EUR", 10}, {"USD", 10}}));
}

class RandomShelf {
public:
  explicit RandomShelf(unsigned seed) : m_random(seed) {
    for (int i = 0; i < between(1, 8); ++i) {
      auto lot = lotOf(i % 3 == 0 ? "same" : std::to_string(i).c_str(), between(0, 50), between(1, 5),
                       between(1, 25), between(1, 90));
      lot.id = std::to_string(i);
      if (i % 4 == 3) lot.product = "mgso4";
      lots.push_back(lot);
    }
    for (int i = 0; i < between(0, 60); ++i)
      events.push_back(event());
  }
  std::vector<ShelfLot> lots;
  std::vector<ShelfEvent> events;

private:
  int between(int low, int high) { return std::uniform_int_distribution(low, high)(m_random); }
  ShelfEvent event() {
    const auto at = between(0, 80) * day;
    const auto id = std::to_string(between(0, 9));
    const auto mass = Mass::fromGrams(between(0, 9000));
    switch (between(0, 5)) {
    case 0:
      return {at, shelved::Counted{id, mass}};
    case 1:
      return {at, shelved::Wasted{id, mass}};
    default:
      break;
    }
    shelved::Used use{between(0, 3) == 0 ? "mgso4" : "kno3", mass, {}, "b"};
    if (between(0, 1) == 0) use.from.push_back({"same", Mass::fromGrams(between(0, 5000))});
    if (between(0, 2) == 0) use.from.push_back({id, std::nullopt});
    return {at, use};
  }
  std::mt19937 m_random;
};

// Nothing is lost between lots, counts and batches, and by the lots the costs add up to what was paid.
TEST(ShelfAccount, NothingIsLostOverAnyLog) {
  for (unsigned seed = 0; seed < 400; ++seed) {
    const RandomShelf shelf(seed);
    const auto account = shelfAccount(shelf.lots, shelf.events);
    std::vector<Mass> taken(shelf.lots.size());
    UseCost all;
    for (const auto& use : account.uses) {
      const auto& what = std::get<shelved::Used>(shelf.events[use.event].what);
      Mass sum = use.notCovered;
      for (const auto& share : use.from) {
        sum = sum + share.mass;
        taken[share.lot] = taken[share.lot] + share.mass;
        EXPECT_EQ(shelf.lots[share.lot].product, what.product);
        EXPECT_LE(shelf.lots[share.lot].boughtAtSeconds, shelf.events[use.event].atSeconds);
      }
      EXPECT_NEAR(sum.grams(), what.mass.grams(), 1e-6);
      addCost(all, costOf(use, shelf.lots));
    }
    double paid = 0, accounted = all.money.empty() ? 0 : all.money.front().amount;
    for (std::size_t i = 0; i < shelf.lots.size(); ++i) {
      const auto& state = account.lots[i];
      EXPECT_GE(state.left.grams(), 0) << seed;
      EXPECT_NEAR(taken[i].grams(), state.used.grams(), 1e-6);
      EXPECT_NEAR((shelf.lots[i].bought() + state.corrected).grams(),
                  (state.left + state.used + state.wasted).grams(), 1e-6)
          << seed;
      const double perKg = *shelf.lots[i].pricePerKg();
      paid += *shelf.lots[i].pricePerBag * shelf.lots[i].bags;
      accounted += perKg * (state.left + state.wasted - state.corrected).kilograms();
    }
    EXPECT_NEAR(paid, accounted, 1e-6) << seed;
  }
}

TEST(ShelfAccount, WithoutABatchItsSaltsAreBack) {
  for (unsigned seed = 0; seed < 50; ++seed) {
    RandomShelf shelf(seed);
    const auto before = shelfAccount(shelf.lots, shelf.events);
    shelf.events.push_back(used(90, 700));
    shelf.events.pop_back();
    const auto after = shelfAccount(shelf.lots, shelf.events);
    for (std::size_t i = 0; i < shelf.lots.size(); ++i)
      EXPECT_EQ(before.lots[i].left, after.lots[i].left);
  }
}

TEST(UseRate, GoesByTheLastWeeks) {
  std::vector<ShelfEvent> events;
  for (int week = 1; week <= 12; ++week)
    events.push_back(
        {now - week * 7 * day + day, shelved::Used{"kno3", Mass::fromKilograms(week > 8 ? 50 : 2), {}, ""}});
  const auto rate = useRateOf("kno3", events, now);
  EXPECT_EQ(rate.weeks, 8);
  EXPECT_NEAR(rate.perWeek.kilograms(), 2, 1e-9);
  EXPECT_NEAR(rate.high.kilograms(), 2, 1e-9) << "every week alike";
  EXPECT_NEAR(*weeksLeft(Mass::fromKilograms(9), rate), 4.5, 1e-9);
  EXPECT_FALSE(weeksLeft(Mass::fromKilograms(9), useRateOf("mgso4", events, now)));
  EXPECT_EQ(useRateOf("kno3", {}, now).weeks, 0);
}

TEST(UseRate, AYoungBookIsReckonedFromItsFirstWeek) {
  const std::vector<ShelfEvent> events{
      {now - 10 * day, shelved::Used{"kno3", Mass::fromKilograms(4), {}, ""}},
      {now + day, shelved::Used{"kno3", Mass::fromKilograms(90), {}, ""}}};
  const auto rate = useRateOf("kno3", events, now);
  EXPECT_EQ(rate.weeks, 2) << "what is to come does not count";
  EXPECT_NEAR(rate.perWeek.kilograms(), 2, 1e-9);
  EXPECT_NEAR(rate.low.kilograms(), 0, 1e-9);
  EXPECT_GT(rate.high.kilograms(), 4);
}

TEST(UseRate, TheSameWeeksAYearAgo) {
  const std::vector<ShelfEvent> events{
      {now - 364 * day + 3 * day, shelved::Used{"kno3", Mass::fromKilograms(7), {}, ""}},
      {now - 364 * day + 17 * day, shelved::Used{"kno3", Mass::fromKilograms(5), {}, ""}}};
  EXPECT_NEAR(usedAYearAgo("kno3", events, now, 2)->kilograms(), 7, 1e-9);
  EXPECT_NEAR(usedAYearAgo("kno3", events, now, 4)->kilograms(), 12, 1e-9);
  EXPECT_FALSE(usedAYearAgo("mgso4", events, now, 4));
}

/// The least cost by trying every order.
double bruteCost(double needed, const std::vector<BagOffer>& offers, std::size_t from = 0) {
  if (needed <= 1e-9) return 0;
  if (from == offers.size()) return HUGE_VAL;
  double best = HUGE_VAL;
  for (int bags = 0; bags <= static_cast<int>(std::ceil(needed / offers[from].bag.grams())); ++bags)
    best = std::min(best, bags * offers[from].price +
                              bruteCost(needed - bags * offers[from].bag.grams(), offers, from + 1));
  return best;
}

TEST(OrderList, IsTheCheapestOfAll) {
  std::mt19937 random(7);
  const auto between = [&](int low, int high) { return std::uniform_int_distribution(low, high)(random); };
  for (int i = 0; i < 300; ++i) {
    std::vector<BagOffer> offers;
    for (int o = 0; o < between(1, 4); ++o)
      offers.push_back({Mass::fromKilograms(between(1, 25)), between(1, 90) / 2.0});
    const auto needed = Mass::fromKilograms(between(1, 120));
    const auto order = cheapestBags(needed, offers);
    ASSERT_TRUE(order);
    EXPECT_GE(order->mass.grams(), needed.grams() - 1e-6);
    EXPECT_NEAR(order->cost, bruteCost(needed.grams(), offers), 1e-6) << i;
    double sum = 0;
    for (std::size_t o = 0; o < offers.size(); ++o)
      sum += order->bags[o] * offers[o].price;
    EXPECT_NEAR(order->cost, sum, 1e-9);
  }
}

TEST(OrderList, AmongEquallyCheapTheMost) {
  const auto order =
      cheapestBags(Mass::fromKilograms(10), {{Mass::fromKilograms(10), 20}, {Mass::fromKilograms(25), 20}});
  ASSERT_TRUE(order);
  EXPECT_EQ(order->bags, (std::vector{0, 1}));
}

TEST(OrderList, WhatCantBeOrderedHasNone) {
  const auto kilo = Mass::fromKilograms(1);
  EXPECT_FALSE(cheapestBags(kilo, {}));
  EXPECT_FALSE(cheapestBags(kilo, {{kilo, 0}})) << "a price of nothing is a price that is not known";
  EXPECT_FALSE(cheapestBags(kilo, {{kilo, -1}}));
  EXPECT_FALSE(cheapestBags(kilo, {{Mass{}, 1}}));
  EXPECT_FALSE(cheapestBags(Mass::fromKilograms(1e9), {{kilo, 1}}));
  EXPECT_FALSE(cheapestBags(Mass::fromGrams(NAN), {{kilo, 1}}));
  EXPECT_EQ(cheapestBags(Mass{}, {{kilo, 1}})->bags, std::vector{0});
}

} // namespace
} // namespace butte::core
