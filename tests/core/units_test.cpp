#include "base/decimal.h"
#include "support/text_table.h"
#include "units/convert.h"
#include "units/quantity.h"

#include <gtest/gtest.h>

using namespace butte;
using namespace butte::core;

TEST(Units, ConversionsMatchTheTable) {
  for (const auto& row : test::readTextTable("units.txt")) {
    const auto value = convert(*parseDecimal(row[0]), row[1], row[2], row[3]);
    ASSERT_TRUE(value) << row[0] << row[1] << row[2];
    const double expected = *parseDecimal(row[4]);
    EXPECT_NEAR(*value, expected, std::abs(expected) * *parseDecimal(row[5])) << row[1] << " to " << row[2];
  }
}

TEST(Units, EveryPairThatConvertsComesBackWhole) {
  for (const auto& from : unitNames()) {
    for (const auto& to : unitNames()) {
      const auto there = convert(7.25, from, to, "Ca");
      if (!there) continue;
      const auto back = convert(*there, to, from, "Ca");
      ASSERT_TRUE(back) << from << " " << to;
      EXPECT_NEAR(*back, 7.25, 7.25e-14 * 4) << from << " " << to;
    }
  }
}

TEST(Units, QuantitiesComeBackWholeFromEveryUnit) {
  for (const double v : {0.001, 1.2, 31.4, 453.6, 1e6}) {
    EXPECT_DOUBLE_EQ(Mass::fromPounds(v).pounds(), v);
    EXPECT_DOUBLE_EQ(Mass::fromOunces(v).ounces(), v);
    EXPECT_DOUBLE_EQ(Mass::fromKilograms(v).kilograms(), v);
    EXPECT_DOUBLE_EQ(Volume::fromUsGallons(v).usGallons(), v);
    EXPECT_DOUBLE_EQ(Volume::fromImperialGallons(v).imperialGallons(), v);
    EXPECT_DOUBLE_EQ(Conductivity::fromPpm700(v).ppm700(), v);
    EXPECT_NEAR(Temperature::fromFahrenheit(v).fahrenheit(), v, 1e-9 * v + 1e-13);
  }
}

TEST(Units, WhatDoesNotFitIsRefusedByName) {
  EXPECT_EQ(convert(1, "kg", "L").problem().code, ProblemCode::IncompatibleUnits);
  EXPECT_EQ(convert(1, "kgs", "g").problem().code, ProblemCode::UnknownUnit);
  EXPECT_EQ(convert(1, "meq/L", "mg/L").problem().code, ProblemCode::NeedsSubstance);
  EXPECT_EQ(convert(1, "meq/L", "mg/L", "B").problem().code, ProblemCode::NoCharge);
  EXPECT_EQ(convert(1, "mmol/L", "mg/L", "nonsense").problem().code, ProblemCode::UnknownSubstance);
  EXPECT_EQ(convert(1, "C", "kg").problem().code, ProblemCode::IncompatibleUnits);
  EXPECT_FALSE(convert(1, "P2O5", "K"));
}

// Common practice: sums that growers do by hand.
TEST(Units, GrowersSumsByHandComeOut) {
  // 120 g in 500 mL, 10 mL per US gallon: 2.4 g per gallon, 50 gallons from the bottle.
  const auto stock = Mass::fromGrams(120) / Volume::fromMillilitres(500);
  EXPECT_NEAR((stock * Volume::fromMillilitres(10)).grams(), 2.4, 1e-12);
  EXPECT_NEAR(Volume::fromMillilitres(500) / Volume::fromMillilitres(10), 50, 1e-12);
  // 1 lb per US gallon at 20 mL per gallon: 2.4 g per gallon.
  const auto pound = Mass::fromPounds(1) / Volume::fromUsGallons(1);
  EXPECT_NEAR((pound * Volume::fromMillilitres(20)).grams(), 2.4, 0.005);
  // 31.4 lb and 7.4 lb in 50 US gallons.
  EXPECT_NEAR((Mass::fromPounds(31.4) / Volume::fromUsGallons(50)).gramsPerLitre(), 75.2, 0.06);
  EXPECT_NEAR((Mass::fromPounds(7.4) / Volume::fromUsGallons(50)).gramsPerLitre(), 17.7, 0.04);
}
