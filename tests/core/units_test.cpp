#include "base/decimal.h"
#include "support/text_table.h"
#include "units/convert.h"
#include "units/quantity.h"
#include "units/typed_unit.h"

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

TEST(TypedUnit, WhatHandsTypeIsTurnedIntoWhatTheFieldAsksFor) {
  const struct {
    const char *typed, *unit, *substance;
    double value;
  } good[] = {{"500 mL", "L", "", 0.5},
              {"500ml", "gal_us", "", 0.132086},
              {"2 gal", "L", "", 7.570824},
              {"2 gal", "gal_imp", "", 2},
              {"1 US gal", "gal_imp", "", 0.832674},
              {"100 lb", "g", "", 45359.237},
              {"3 lbs", "kg", "", 1.360777},
              {"2.5 oz", "g", "", 70.8738},
              {"1,5 kg", "g", "", 1500},
              {"1e3 g", "kg", "", 1},
              {"1.2 meq/L", "mg/L", "Ca", 24.0468},
              {"2 mmol/L", "mg/L", "K", 78.1966},
              {"900 ppm", "mg/L", "K", 900},
              {"1200 uS/cm", "mS/cm", "", 1.2},
              {"1.4 mS", "ppm500", "", 700},
              {"68 °F", "C", "", 20},
              {"5 %", "%", "", 5},
              {"12.50", "g", "", 12.5},
              {"3 tsp", "mL", "", 14.7868},
              {"10 °C", "C", "", 10}};
  for (const auto& [typed, unit, substance, value] : good) {
    const auto figure = typedFigure(typed);
    ASSERT_TRUE(figure) << typed;
    const auto digits = digitsIn(*figure, unit, substance);
    ASSERT_TRUE(digits) << typed << " in " << unit;
    EXPECT_NEAR(*parseDecimal(*digits), value, 2e-5 * value) << typed << " in " << unit;
  }
}

TEST(TypedUnit, WhatIsNotOfTheQuantityOrUnclearIsNothing) {
  const struct {
    const char *typed, *unit, *substance;
  } bad[] = {{"500 mL", "g", ""},     {"12 g", "mg/L", "K"}, {"5 parsec", "L", ""}, {"900 ppm", "mS/cm", ""},
             {"2 meq/L", "mg/L", ""}, {"7 L", "", ""},       {"3 kg", "L", ""},     {"5 l/min", "L", ""}};
  for (const auto& [typed, unit, substance] : bad) {
    const auto figure = typedFigure(typed);
    ASSERT_TRUE(figure) << typed;
    EXPECT_FALSE(digitsIn(*figure, unit, substance)) << typed << " in " << unit;
  }
  for (const char* none : {"", "abc", "mL", "-", "L 5"})
    EXPECT_FALSE(typedFigure(none)) << none;
}

TEST(TypedUnit, TypedDigitsStayAsTheyAreWhereNothingIsConverted) {
  EXPECT_EQ(*digitsIn(*typedFigure("12.50 kg"), "kg"), "12.50");
  EXPECT_EQ(*digitsIn(*typedFigure(" 12,50 "), "kg"), "12.50");
  EXPECT_EQ(*digitsIn(*typedFigure("1 lb"), "g"), "453.59237");
}
