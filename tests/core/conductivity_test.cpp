#include "base/decimal.h"
#include "formula/mix.h"
#include "support/shelf_builder.h"
#include "support/text_table.h"

using namespace butte;
using namespace butte::core;

TEST(Conductivity, StandardsAndHandbookSolutionsComeOut) {
  for (const auto& row : test::readTextTable("conductivity.txt")) {
    const auto feed =
        mix(pureWater(), {test::salt(row[0])}, {test::grams(*parseDecimal(row[1]))}, test::litres(1));
    const double expected = *parseDecimal(row[2]);
    EXPECT_NEAR(feed.conductivity.milliSiemensPerCm(), expected, expected * *parseDecimal(row[3]) / 100)
        << row[0];
  }
}

TEST(Conductivity, TheGrowersRuleStandsBeside) {
  const auto feed = mix(pureWater(), {test::salt("KCl")}, {test::grams(0.74548)}, test::litres(1));
  EXPECT_NEAR(feed.conductivityByRule.milliSiemensPerCm(), 1.0, 0.001); // 10 meq/L of cations
}

TEST(Conductivity, AWaterKnownByItsEcOnlyStillReadsOnTheMeter) {
  WaterReport report;
  report.conductivityMsPerCm = 0.5;
  const auto water = normaliseWater(report);
  ASSERT_TRUE(water);
  EXPECT_NEAR(mix(*water, {}, {}, test::litres(1)).conductivity.milliSiemensPerCm(), 0.5, 1e-4); // pure water itself: 0.00005
}

TEST(Conductivity, MoreSaltReadsHigherUpToStockStrength) {
  double before = 0;
  for (double g = 0.001; g < 300; g *= 1.5) {
    const auto feed = mix(pureWater(), {test::salt("KNO3")}, {test::grams(g)}, test::litres(1));
    EXPECT_GT(feed.conductivity.milliSiemensPerCm(), before) << g;
    before = feed.conductivity.milliSiemensPerCm();
  }
}
