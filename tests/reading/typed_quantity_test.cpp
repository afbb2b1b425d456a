// Quantities as hands type them: the table from outside (tests/data/truth/typed.csv, exact factors), and our
// own.
#include "base/csv.h"
#include "base/decimal.h"
#include "quantity/typed_dose.h"
#include "quantity/typed_quantity.h"

#include <fstream>
#include <gtest/gtest.h>
#include <sstream>

using namespace butte;
using namespace butte::reading;

namespace {

void expectValue(const std::string& typed, const std::string& unit, double value,
                 const std::string& substance = {}) {
  const auto read = typedQuantity(typed, unit, substance);
  ASSERT_TRUE(static_cast<bool>(read)) << typed << " in " << unit;
  EXPECT_NEAR(read->value, value, 2e-4 * std::abs(value) + 1e-12) << typed << " in " << unit;
  EXPECT_NEAR(*core::parseDecimal(read->digits), read->value, 1e-8 * std::abs(value) + 1e-12) << typed;
}

} // namespace

TEST(TypedQuantity, TheTableFromOutside) {
  std::ifstream in(std::string(BUTTE_TEST_DATA) + "/data/truth/typed.csv");
  std::stringstream text;
  text << in.rdbuf();
  const core::CsvTable table(text.str());
  ASSERT_EQ(table.rowCount(), 94u);
  for (std::size_t row = 0; row < table.rowCount(); ++row) {
    const auto &typed = table.cell(row, "typed"), &unit = table.cell(row, "in_unit"),
               &value = table.cell(row, "value");
    if (value == "refused")
      EXPECT_FALSE(static_cast<bool>(typedQuantity(typed, unit))) << typed << " as " << unit;
    else
      expectValue(typed, unit, *core::parseDecimal(value));
  }
}

// Exact factors: the international pound and the US gallon (NIST Handbook 44); scales of meters by
// definition.
TEST(TypedQuantity, WhatHandsTypeIsTurnedIntoWhatTheFieldAsksFor) {
  const struct {
    const char *typed, *unit, *substance;
    double value;
  } good[] = {{"500 mL", "L", "", 0.5},
              {"500ml", "gal_us", "", 0.132086},
              {"2 gal", "L", "", 7.570824},
              {"2 gal", "gal_imp", "", 2},
              {"1 US gal", "gal_imp", "", 0.832674},
              {"100 lb", "g", "", 45359.237},
              {"2.5 oz", "g", "", 70.8738},
              {"1,5 kg", "g", "", 1500},
              {"1e3 g", "kg", "", 1},
              {"1.2 meq/L", "mg/L", "Ca", 24.0468},
              {"2 mmol/L", "mg/L", "K", 78.1966},
              {"900 ppm", "mg/L", "K", 900},
              {"1200 uS/cm", "mS/cm", "", 1.2},
              {"1.4 mS", "ppm500", "", 700},
              {"68 °F", "C", "", 20},
              {"-4 °F", "C", "", -20},
              {"5 %", "%", "", 5},
              {"12.50", "g", "", 12.5},
              {"3 tsp", "mL", "", 14.7868},
              {"CF 18", "mS/cm", "", 1.8},
              {"18 CF", "mS/cm", "", 1.8},
              {"EC 1.8", "mS/cm", "", 1.8},
              {"1 lb, 3 oz", "g", "", 538.6409},
              {"0.5 fl oz per gallon", "mL/L", "", 3.90625},
              {"1 tsp/gal", "mL/L", "", 1.302083},
              {"3 L/1000 L", "mL/L", "", 3},
              {"1.250,5 g", "g", "", 1250.5},
              {"1,250.5 g", "g", "", 1250.5},
              {"12'500 g", "g", "", 12500},
              {"10 °dH", "dH", "", 10},
              {"7", "", "", 7},
              {"900 ppm500", "mS/cm", "", 1.8},
              {"900 ppm", "ppm700", "", 900},
              {"1.8 mS cm-1", "mS/cm", "", 1.8},
              {"150 mg l⁻¹", "mg/L", "", 150},
              {"1 part in 100", "mL/L", "", 10},
              {"10 mL to 1 L", "mL/L", "", 10},
              {"1:50", "percent", "", 2},
              {"50 °F", "C", "", 10},
              {"25 °f", "mg/L_CaCO3", "", 250.2}};
  for (const auto& [typed, unit, substance, value] : good)
    expectValue(typed, unit, value, substance);
}

TEST(TypedQuantity, WhatIsNotOfTheQuantityOrUnclearIsRefusedAndSaysWhy) {
  using core::ProblemCode;
  const struct {
    const char *typed, *unit;
    ProblemCode code;
  } bad[] = {{"500 mL", "g", ProblemCode::IncompatibleUnits},
             {"12 g", "mg/L", ProblemCode::IncompatibleUnits},
             {"5 parsec", "L", ProblemCode::UnknownUnit},
             {"900 ppm", "mS/cm", ProblemCode::Unclear},
             {"2 meq/L", "mg/L", ProblemCode::NeedsSubstance},
             {"7 L", "", ProblemCode::IncompatibleUnits},
             {"3 kg", "L", ProblemCode::IncompatibleUnits},
             {"5 l/min", "L", ProblemCode::UnknownUnit},
             {"", "g", ProblemCode::NotANumber},
             {"abc", "g", ProblemCode::NotANumber},
             {"mL", "g", ProblemCode::NotANumber},
             {"-", "g", ProblemCode::NotANumber},
             {"L 5", "L", ProblemCode::NotANumber},
             {"1,250 g", "g", ProblemCode::Unclear},
             {"2 tons", "kg", ProblemCode::Unclear},
             {"1 lb 3", "g", ProblemCode::Unclear},
             {"100:1", "mL/L", ProblemCode::Unclear},
             {"3 oz 1 lb", "g", ProblemCode::NotANumber},
             {"1:0", "mL/L", ProblemCode::NotANumber},
             {"5 g/0 L", "mg/L", ProblemCode::IncompatibleUnits}};
  for (const auto& [typed, unit, code] : bad) {
    const auto read = typedQuantity(typed, unit);
    ASSERT_FALSE(static_cast<bool>(read)) << typed << " in " << unit;
    EXPECT_EQ(read.problem().code, code) << typed << " in " << unit;
  }
  EXPECT_EQ(typedQuantity("1,250 g", "g").problem().values.at(1), "1250, 1.25");
}

TEST(TypedQuantity, TypedDigitsStayAsTheyAreWhereNothingIsConverted) {
  EXPECT_EQ(typedQuantity("12.50 kg", "kg")->digits, "12.50");
  EXPECT_EQ(typedQuantity(" 12,50 ", "kg")->digits, "12.50");
  EXPECT_EQ(typedQuantity("1 lb", "g")->digits, "453.59237");
}

TEST(TypedQuantity, AnyBytesAreAnswered) {
  unsigned state = 7;
  static constexpr std::string_view pieces[] = {
      "1", "/", " ",   "½", ",",    ".",   "lb", "per",
      ":", "-", "gal", "%", "\xff", "ppm", "e9", "999999999999999999999",
      "°"};
  for (int i = 0; i < 20000; ++i) {
    std::string text;
    for (int k = 0; k < 8; ++k) {
      state = state * 1664525 + 1013904223;
      text += pieces[(state >> 20) % std::size(pieces)];
    }
    const auto read = typedQuantity(text, i % 2 ? "g" : "mL/L");
    EXPECT_TRUE(!read || std::isfinite(read->value)) << text;
  }
}

// A label's rate, a liquid's volume and level spoons are weights of the batch. Volumes by definition (NIST
// Handbook 44); 115 g per 100 L and 0.5 fl oz per gallon are labels' rates (common practice).
TEST(TypedDose, IsWhatTheBatchTakes) {
  core::ShelfProduct dry, liquid;
  dry.levelTeaspoon = core::Mass::fromGrams(4.8);
  liquid.liquid = true;
  liquid.densityKgPerL = 1.2;
  const auto batch = core::Volume::fromUsGallons(3);
  const struct {
    const char* typed;
    const core::ShelfProduct& product;
    double grams;
  } good[] = {{"115 g per 100 L", dry, 1.15 * 3 * 3.785411784},
              {"115 g/100 L", dry, 1.15 * 3 * 3.785411784},
              {"2.4 g per gallon", dry, 7.2},
              {"2 tsp", dry, 9.6},
              {"1 tsp per gallon", dry, 14.4},
              {"0.5 fl oz per gallon", liquid, 1.5 * 29.5735295625 * 1.2},
              {"5 ml per gallon", liquid, 15 * 1.2},
              {"20 ml", liquid, 24},
              {"1:100", liquid, 3 * 3785.411784 / 100 * 1.2}};
  for (const auto& c : good) {
    const auto dose = typedDose(c.typed, c.product, batch);
    ASSERT_TRUE(static_cast<bool>(dose)) << c.typed;
    EXPECT_NEAR(dose->grams(), c.grams, 1e-6 * c.grams) << c.typed;
  }
  core::ShelfProduct unknown;
  unknown.liquid = true;
  for (const auto* typed : {"", "much", "1:100", "5 %", "20 °C", "12 mS/cm", "1:2:3"})
    EXPECT_FALSE(static_cast<bool>(typedDose(typed, dry, batch))) << typed;
  EXPECT_FALSE(static_cast<bool>(typedDose("20 ml", unknown, batch))) << "its density is not known";
}
