// A formula solved again because a product did not arrive, or is to be used up first.
#include "formula/other_shelf.h"
#include "support/shelf_builder.h"

namespace butte::core {
namespace {

using test::grams;
using test::salt;

Given someFormula() {
  Given given;
  auto& request = given.request;
  request.water = pureWater();
  request.volume = test::litres(1000);
  for (const auto* formula : {"KNO3", "Ca(NO3)2.4H2O", "KH2PO4", "MgSO4.7H2O", "K2SO4"}) {
    request.shelf.push_back(salt(formula));
    request.shelf.back().pricePerKg = 1;
  }
  for (const auto& [nutrient, wanted] : {std::pair{Nutrient::N, 150.0},
                                         {Nutrient::P, 40.0},
                                         {Nutrient::K, 200.0},
                                         {Nutrient::Ca, 120.0},
                                         {Nutrient::Mg, 30.0}})
    request.rows.push_back({nutrient, wanted, 10});
  return given;
}

bool isIn(const Given& given, const Answer& answer, std::size_t row) {
  const auto& one = given.request.rows[row];
  return one.contains(answer.feed.milligramsPerLitre.of(one.nutrient));
}

TEST(WithoutProduct, NamesWhatLeavesItsBandAndTakesNoneOfIt) {
  const auto given = someFormula();
  const auto answer = compute(given);
  ASSERT_TRUE(answer);
  const auto other = withoutProduct(given, *answer, 1);
  ASSERT_TRUE(other);
  EXPECT_EQ(other->answer.solution.grams[1], Mass());
  ASSERT_FALSE(other->suffers.empty());
  bool calcium = false;
  for (const auto& one : other->suffers) {
    EXPECT_FALSE(isIn(given, other->answer, one.row));
    calcium = calcium || given.request.rows[one.row].nutrient == Nutrient::Ca;
  }
  EXPECT_TRUE(calcium) << "nothing else brings it";
  EXPECT_TRUE(other->costBefore && other->costAfter);
}

TEST(WithMostOf, TakesMoreAndNoRowLeavesItsBand) {
  const auto given = someFormula();
  const auto answer = compute(given);
  ASSERT_TRUE(answer);
  for (std::size_t product = 0; product < given.request.shelf.size(); ++product) {
    const auto other = withMostOf(given, *answer, product, grams(5000));
    if (!other) continue;
    EXPECT_GT(other->answer.solution.grams[product], answer->solution.grams[product]);
    for (std::size_t row = 0; row < given.request.rows.size(); ++row)
      EXPECT_TRUE(isIn(given, other->answer, row) || !isIn(given, *answer, row));
    // A fiftieth more than the most would do harm, else it was not the most.
    auto more = given;
    more.request.shelf[product].locked = other->answer.solution.grams[product] * 1.02 + grams(10);
    const auto beyond = compute(more);
    ASSERT_TRUE(beyond);
    bool harmed = false;
    for (std::size_t row = 0; row < given.request.rows.size(); ++row)
      harmed = harmed || (isIn(given, *answer, row) && !isIn(given, *beyond, row));
    EXPECT_TRUE(harmed) << product;
  }
  EXPECT_TRUE(withMostOf(given, *answer, 4, grams(5000))) << "sulfate is free: some of it always goes in";
  EXPECT_FALSE(withMostOf(given, *answer, 0, Mass())) << "nothing is left of it";
}

} // namespace
} // namespace butte::core
