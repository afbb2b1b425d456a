#include "bench/weigh_plan.h"
#include "cautions.h"
#include "support/shelf_builder.h"

#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;

namespace {
const std::vector<Scale> twoScales{{"fine", test::grams(0.01), test::grams(30)},
                                   {"coarse", test::grams(5), test::grams(15000)}};
}

// Round half up to the scale's step (common practice).
TEST(WeighPlan, RoundsHalfUpToTheScale) {
  EXPECT_NEAR(roundedToStep(test::grams(0.125), test::grams(0.01)).grams(), 0.13, 1e-12);
  EXPECT_NEAR(roundedToStep(test::grams(2.675), test::grams(0.01)).grams(), 2.68, 1e-12);
  EXPECT_NEAR(roundedToStep(test::grams(0.375), test::grams(0.25)).grams(), 0.5, 1e-12);
}

// A scale that shows whole grams can't weigh 1.2 g: the error is about 40 % (common practice).
TEST(WeighPlan, SaysWhenTheScaleIsTooCoarse) {
  const auto plan =
      weighPlan({test::salt("H3BO3")}, {test::grams(1.2)}, {{"kitchen", test::grams(1), test::grams(5000)}});
  EXPECT_TRUE(plan.at(0).tooFine);
  EXPECT_NEAR(plan[0].errorPercent, 41.7, 0.1);
}

TEST(WeighPlan, TakesTheFinestScaleThatFitsAndLoadsWhereItMust) {
  const auto plan =
      weighPlan({test::salt("KNO3"), test::salt("KCl"), test::salt("K2SO4"), test::salt("NH4NO3")},
                {test::grams(20), test::grams(31000), test::grams(0), test::grams(41)}, twoScales);
  ASSERT_EQ(plan.size(), 3u);
  EXPECT_EQ(plan[0].scale, 1u); // 31 kg: three loads of the large scale
  EXPECT_EQ(plan[0].loads, 3);
  EXPECT_EQ(plan[1].scale, 0u); // 41 g on a 5 g scale would be 6 % off: two loads of the fine one
  EXPECT_EQ(plan[1].loads, 2);
  EXPECT_FALSE(plan[1].tooFine);
  EXPECT_EQ(plan[2].scale, 0u);
}

TEST(WeighPlan, PhosphatesComeFirstAndChelatesLast) {
  const std::vector<ShelfProduct> shelf{test::salt("C10H12N2NaFeO8·3H2O"), test::salt("MgSO4·7H2O"),
                                        test::salt("KH2PO4"), test::salt("ZnSO4·7H2O")};
  const auto plan =
      weighPlan(shelf, {test::grams(100), test::grams(100), test::grams(100), test::grams(100)}, twoScales);
  std::vector<std::string> order;
  for (const auto& step : plan)
    order.push_back(shelf[step.product].id);
  EXPECT_THAT(order, ::testing::ElementsAre("KH2PO4", "MgSO4·7H2O", "ZnSO4·7H2O", "C10H12N2NaFeO8·3H2O"));
}

TEST(Cautions, SpeakOfTheVeryProducts) {
  const auto cautions = words::cautionsFor({{"calcium nitrate", {"H302", "H318"}, false, false, false},
                                            {"potassium nitrate", {"H272"}, true, false, false},
                                            {"boric acid", {"H360FD"}, false, false, false},
                                            {"nitric acid", {"H314"}, false, true, false}});
  const auto named = [&](const std::string& word, const std::string& product) {
    for (const auto& c : cautions) {
      if (c.text.find(word) != std::string::npos) return c.products == std::vector<std::string>{product};
    }
    return false;
  };
  EXPECT_TRUE(named("eyes for good", "calcium nitrate"));
  EXPECT_TRUE(named("Oxidiser", "potassium nitrate"));
  EXPECT_TRUE(named("fertility", "boric acid"));
  EXPECT_TRUE(named("Acid into water", "nitric acid"));
  EXPECT_TRUE(words::cautionsFor({{"potassium sulfate", {}, false, false, false}}).empty());
}
