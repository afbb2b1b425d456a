// Orders of other schools and what they cost. Solubility of gypsum: about 2.4 g/L (CRC Handbook).
#include "run/run_order.h"

#include "support/two_tanks.h"

#include <gmock/gmock.h>

namespace butte::core {
namespace {

using test::grams;

/// One vessel of feed of 100 L, and one that is a concentrate of the same.
RunPlan vesselOf(double litres, double factor) {
  auto plan = test::twoTanks();
  plan.vessels = {runVessel("vessel", Volume::fromLitres(litres), factor, plan.shelf,
                            {grams(90), grams(30), grams(50), {}, {}})};
  return plan;
}

std::vector<std::size_t> productsOf(const std::vector<RunStep>& steps) {
  std::vector<std::size_t> out;
  for (const auto& step : steps)
    out.push_back(step.product);
  return out;
}

TEST(RunOrder, EachSchoolPutsItsOwnFirstAndKeepsTheRest) {
  const auto plan = vesselOf(100, 1);
  using ::testing::ElementsAre;
  EXPECT_THAT(productsOf(orderedBy(OrderSchool::Chemistry, plan, 0)), ElementsAre(2, 1, 0))
      << "calcium last in feed";
  EXPECT_THAT(productsOf(orderedBy(OrderSchool::CalciumFirst, plan, 0)), ElementsAre(0, 2, 1));
  EXPECT_THAT(productsOf(orderedBy(OrderSchool::MagnesiumLast, plan, 0)), ElementsAre(1, 0, 2));
  EXPECT_THAT(productsOf(orderedBy(OrderSchool::HeaviestFirst, plan, 0)), ElementsAre(0, 2, 1));
  for (const auto school : allOrderSchools) {
    EXPECT_EQ(orderSchoolFromKey(orderSchoolKey(school)), school);
    EXPECT_THAT(productsOf(orderedBy(school, plan, 0)), ::testing::UnorderedElementsAre(0, 1, 2));
  }
}

TEST(RunOrder, ThinFeedBearsAnyOrderAConcentrateNone) {
  const auto thin = vesselOf(100, 1);
  for (const auto school : allOrderSchools)
    EXPECT_TRUE(costOfOrder(thin, 0, orderedBy(school, thin, 0)).isHarmless()) << orderSchoolKey(school);
  const auto strong = vesselOf(1, 100); // 90 g/L calcium nitrate beside 50 g/L magnesium sulfate
  const auto cost = costOfOrder(strong, 0, orderedBy(OrderSchool::CalciumFirst, strong, 0));
  ASSERT_FALSE(cost.onTheWay.empty());
  EXPECT_EQ(cost.onTheWay.front().step, 1u) << "when the sulfate meets the calcium";
  EXPECT_EQ(cost.onTheWay.front().fallen.front().solid, "gypsum");
}

// What stays clear at the mark can fall while the vessel is half full: 0.9 of the water is no danger, half
// is.
TEST(RunOrder, TheWaterThatIsThereByThenCounts) {
  auto plan = test::twoTanks();
  // 4 g/L calcium nitrate and 3 g/L magnesium sulfate: some 2.1 g/L of gypsum if all fell.
  plan.vessels = {
      runVessel("tank", Volume::fromLitres(10), 2, plan.shelf, {grams(55), {}, grams(42), {}, {}})};
  const auto cost = costOfOrder(plan, 0, orderedBy(OrderSchool::Chemistry, plan, 0));
  EXPECT_TRUE(cost.atTheMark.empty());
  EXPECT_FALSE(cost.onTheWay.empty()) << "in half the water it falls";
}

TEST(RunOrder, EveryProductHasItsReason) {
  const auto plan = test::twoTanks();
  EXPECT_EQ(orderReasonOf(plan, 0, 0), OrderReason::CalciumLeads);
  EXPECT_EQ(orderReasonOf(plan, 0, 1), OrderReason::BigSalt);
  const auto feed = vesselOf(100, 1);
  EXPECT_EQ(orderReasonOf(feed, 0, 2), OrderReason::CalciumLast);
}

} // namespace
} // namespace butte::core
