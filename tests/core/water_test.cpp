#include "support/shelf_builder.h"
#include "water/water.h"

#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;
using ::testing::Contains;
using ::testing::Not;

TEST(Water, IonsAndOxidesBecomeElements) {
  const auto water = test::waterOf({{"NO3", 44.268}, {"SO4", 96.056}, {"P2O5", 10}, {"HCO3", 61.016}});
  EXPECT_NEAR(water.milligramsPerLitre.of(Nutrient::NNitrate), 10, 1e-3);
  EXPECT_NEAR(water.milligramsPerLitre.of(Nutrient::S), 32.06, 1e-9);
  EXPECT_NEAR(water.milligramsPerLitre.of(Nutrient::P), 4.3642, 1e-3);
  EXPECT_NEAR(*water.alkalinityMeqPerL, 1, 1e-9);
}

TEST(Water, TwoKeysForOneElementAreRefused) {
  WaterReport report;
  report.milligramsPerLitre = {{"Ca", 52}, {"CaO", 70}};
  EXPECT_EQ(normaliseWater(report).problem().code, ProblemCode::DuplicateKey);
  report.milligramsPerLitre = {{"S", 5}, {"SO4", 15}};
  EXPECT_EQ(normaliseWater(report).problem().code, ProblemCode::DuplicateKey);
}

TEST(Water, WhatCannotBeIsRefusedByName) {
  WaterReport report;
  report.milligramsPerLitre = {{"Ca", -1}};
  EXPECT_EQ(normaliseWater(report).problem().where, "water.analysis_mg_per_l.Ca");
  report.milligramsPerLitre = {{"Calcium", 1}};
  EXPECT_EQ(normaliseWater(report).problem().code, ProblemCode::UnknownKey);
  report.milligramsPerLitre = {};
  report.ph = 15;
  EXPECT_EQ(normaliseWater(report).problem().where, "water.ph");
}

TEST(Water, HardnessFillsOnlyWhatIsMissing) {
  // 150.129 mg/L as CaCO3 is 3 meq/L; 40.078 mg/L of calcium is 2 of them.
  const auto water = test::waterOf({{"Ca", 40.078}, {"hardness_as_CaCO3", 150.129}, {"HCO3", 183.05}});
  EXPECT_NEAR(water.milligramsPerLitre.of(Nutrient::Mg), 24.305 / 2, 1e-3);
  const auto known = test::waterOf({{"Ca", 40.078}, {"Mg", 5}, {"hardness_as_CaCO3", 300}});
  EXPECT_DOUBLE_EQ(known.milligramsPerLitre.of(Nutrient::Mg), 5);
  EXPECT_THAT(known.remarks, Contains(WaterRemark::HardnessDisagrees));
}

TEST(Water, BicarbonateWinsOverAlkalinityWithAWarningOnlyWhereTheyDisagree) {
  const auto apart = test::waterOf({{"HCO3", 122.03}, {"alkalinity_as_CaCO3", 200}});
  EXPECT_NEAR(*apart.alkalinityMeqPerL, 2, 1e-3);
  EXPECT_THAT(apart.remarks, Contains(WaterRemark::AlkalinityDisagrees));
  const auto alike = test::waterOf({{"HCO3", 122.03}, {"alkalinity_as_CaCO3", 100}});
  EXPECT_THAT(alike.remarks, Not(Contains(WaterRemark::AlkalinityDisagrees)));
}

TEST(Water, UnknownIsNotZero) {
  EXPECT_FALSE(test::waterOf({{"Ca", 40}}).alkalinityMeqPerL);
  WaterReport onlyMeter;
  onlyMeter.conductivityMsPerCm = 0.6;
  const auto water = normaliseWater(onlyMeter);
  EXPECT_FALSE(water->compositionKnown);
  EXPECT_THAT(water->remarks, Contains(WaterRemark::OnlyConductivity));
}

/// NO3-N typed where NO3 was meant lifts the anions: the classic mix-up must show.
TEST(Water, AUnitMixUpShowsAsImbalance) {
  const std::vector<WaterRow> good{{"Ca", 78},  {"Mg", 14},  {"Na", 23},   {"Cl", 34},
                                   {"SO4", 41}, {"NO3", 12}, {"HCO3", 247}};
  EXPECT_THAT(test::waterOf(good).remarks, Not(Contains(WaterRemark::ChargeUnbalanced)));
  auto bad = good;
  bad[5] = {"N_NO3", 12};
  bad[6] = {"HCO3", 203}; // alkalinity as CaCO3 in the wrong row
  EXPECT_THAT(test::waterOf(bad).remarks, Not(Contains(WaterRemark::Pure)));
  bad[5] = {"N_NO3", 50};
  EXPECT_THAT(test::waterOf(bad).remarks, Contains(WaterRemark::ChargeUnbalanced));
}

// Every key of a report, typed as "less than": half of it counts, give or take that half (Standard Methods,
// usual practice).
TEST(Water, LessThanIsHalfOfItGiveOrTakeAsMuchWhateverTheKey) {
  int judged = 0;
  for (const auto& key : waterKeys()) {
    WaterReport whole, below;
    whole.milligramsPerLitre = below.milligramsPerLitre = {{key, 10}};
    below.below = {key};
    const auto is = normaliseWater(whole), less = normaliseWater(below);
    ASSERT_TRUE(is && less) << key;
    if (const auto extra = waterExtraFromKey(key)) {
      EXPECT_DOUBLE_EQ(*less->extras[static_cast<std::size_t>(*extra)], 5) << key;
      continue;
    }
    ++judged;
    for (const auto nutrient : allNutrients) {
      const double half = is->milligramsPerLitre.of(nutrient) / 2;
      EXPECT_NEAR(less->milligramsPerLitre.of(nutrient), half, 1e-12) << key << " " << nutrientKey(nutrient);
      EXPECT_NEAR(less->plusMinusMgPerL.of(nutrient), half, 1e-12) << key << " " << nutrientKey(nutrient);
    }
    const double half = is->alkalinityMeqPerL.value_or(0) / 2;
    EXPECT_NEAR(less->alkalinityMeqPerL.value_or(0), half, 1e-12) << key;
    EXPECT_NEAR(less->alkalinityPlusMinusMeqPerL, half, 1e-12) << key;
    EXPECT_THAT(less->remarks, Contains(WaterRemark::BelowDetection)) << key;
  }
  EXPECT_GT(judged, 30);
}

TEST(Water, WhatIsBelowBesideWhatIsMeasuredMovesOnlyItself) {
  WaterReport report;
  report.milligramsPerLitre = {{"N", 8}, {"N_NH4", 1}, {"HCO3", 122.03}, {"CO3", 6}};
  report.below = {"N", "CO3"};
  const auto water = normaliseWater(report);
  ASSERT_TRUE(water);
  EXPECT_NEAR(water->milligramsPerLitre.of(Nutrient::NAmmonium), 1, 1e-12);
  EXPECT_NEAR(water->milligramsPerLitre.of(Nutrient::NNitrate), 3, 1e-12)
      << "half of eight, less the ammonium";
  EXPECT_NEAR(water->plusMinusMgPerL.of(Nutrient::NAmmonium), 0, 1e-12);
  EXPECT_NEAR(*water->alkalinityMeqPerL, 2 + 2 * 3 / 60.009, 1e-3);
  EXPECT_NEAR(water->alkalinityPlusMinusMeqPerL, 2 * 3 / 60.009, 1e-3);
  report.milligramsPerLitre = {{"Ca", 40.078}, {"hardness_as_CaCO3", 300.258}};
  report.below = {"hardness_as_CaCO3"};
  const auto hard = normaliseWater(report);
  ASSERT_TRUE(hard);
  EXPECT_NEAR(hard->milligramsPerLitre.of(Nutrient::Mg), 12.1525, 1e-3)
      << "three meq/L less the calcium's two";
  EXPECT_NEAR(hard->plusMinusMgPerL.of(Nutrient::Mg), 12.1525, 1e-3);
  EXPECT_NEAR(hard->plusMinusMgPerL.of(Nutrient::Ca), 0, 1e-12);
}
