// Bags of one recipe and how even they are. Mean and standard deviation by hand.
#include "run/bag_fills.h"

#include "support/two_tanks.h"

#include <gmock/gmock.h>

namespace butte::core {
namespace {

using test::grams;

RunPlan bags(std::size_t count) {
  return bagPlan(test::twoTanks(), count, [](std::size_t vessel, std::size_t product, std::size_t bag) {
    return std::to_string(vessel) + "." + std::to_string(product) + "." + std::to_string(bag);
  });
}

RunState filled(const RunPlan& plan, const std::vector<double>& weights) {
  std::vector<RunDeed> deeds{did::Prepared{}};
  for (std::size_t v = 0; v < weights.size(); ++v) {
    deeds.push_back(did::Weighed{plan.vessels[v].steps[0].product, grams(weights[v]), "L1", true});
    deeds.push_back(did::Accepted{plan.vessels[v].steps[0].product, v});
    deeds.push_back(did::Tipped{plan.vessels[v].steps[0].product, v});
  }
  return test::stateAfter(plan, deeds);
}

TEST(BagFills, ABagAsksForNoWaterAndNothingToDissolve) {
  const auto plan = bags(3);
  ASSERT_EQ(plan.vessels.size(), 12u) << "two salts in each of two tanks";
  EXPECT_NEAR(plan.vessels[0].volume.litres(), 1000, 1e-9) << "of feed";
  auto state = test::stateAfter(plan, {did::Prepared{}});
  EXPECT_EQ(state.next.phase, RunPhase::Weigh);
  state = test::stateAfter(plan, test::goodRun(plan));
  EXPECT_EQ(state.next.phase, RunPhase::Done);
}

TEST(BagFills, MeanDeviationAndWhatIsOutside) {
  const auto plan = bags(5);
  const auto wanted = plan.vessels[0].steps[0].planned.grams();
  const auto tolerance = plan.vessels[0].steps[0].tolerance.grams();
  ASSERT_NEAR(tolerance, 8, 0.01) << "1 % of the calcium";
  const auto fills =
      bagFills(plan, filled(plan, {wanted - 2, wanted + 2, wanted + 4, wanted - 4, wanted + 20})).front();
  EXPECT_EQ(fills.bags, 5u);
  EXPECT_NEAR(fills.mean.grams(), wanted + 4, 1e-9);
  ASSERT_TRUE(fills.deviation);
  EXPECT_NEAR(fills.deviation->grams(), std::sqrt((36 + 4 + 0 + 64 + 256) / 4.0), 1e-9);
  EXPECT_EQ(fills.outside, 1u);
  EXPECT_TRUE(fills.fills[4].isOutside);
  EXPECT_FALSE(fills.isShifted) << "one bag that is off is no scale that is off";
}

TEST(BagFills, BagsThatLieAllToOneSideTellOfTheScale) {
  const auto plan = bags(6);
  const auto wanted = plan.vessels[0].steps[0].planned.grams();
  const auto one =
      bagFills(plan, filled(plan, {wanted + 5, wanted + 6, wanted + 5, wanted + 7, wanted + 6, wanted + 5}));
  EXPECT_TRUE(one.front().isShifted);
  EXPECT_EQ(one.front().outside, 0u) << "each is within its tolerance";
  EXPECT_EQ(one[1].fills.size(), 0u);
  EXPECT_FALSE(one[1].deviation);
}

TEST(BagFills, LotsStayWithTheirBag) {
  const auto plan = bags(2);
  const auto state = filled(plan, {plan.vessels[0].steps[0].planned.grams()});
  ASSERT_EQ(state.lots.size(), 1u);
  EXPECT_EQ(state.lots[0].vessel, std::optional<std::size_t>(0));
}

} // namespace
} // namespace butte::core
