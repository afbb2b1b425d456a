// A script and a document that say the same thing give the same answer, and refuse the same nonsense: both
// are read by exchange/things.
#include "base/decimal.h"
#include "formula_json.h"
#include "json_reader.h"
#include "script_input.h"
#include "things/figures.h"
#include "words.h"

#include <gmock/gmock.h>
#include <random>

using namespace butte;
using namespace butte::exchange;

namespace {

struct Both {
  Json script, document;
};

std::string typed(double value) {
  return core::decimalText(value);
}

/// The same random formula in both writings.
Both randomFormula(std::mt19937& random) {
  const auto between = [&](double low, double high) {
    const double unit = random() / 4294967296.0;
    return std::round((low + (high - low) * unit) * 1000) / 1000;
  };
  Both out{{{"products", Json::array()}}, emptyFormula()};
  auto& script = out.script;
  auto& document = out.document;
  document["water"] = {{"name", "W"}, {"rows", Json::array()}};
  script["water"] = {{"analysis_mg_per_l", Json::object()}};
  for (const auto& [key, most] :
       {std::pair{"Ca", 90.0}, {"Mg", 20.0}, {"Na", 40.0}, {"HCO3", 200.0}, {"Cl", 40.0}}) {
    const double value = between(1, most);
    script["water"]["analysis_mg_per_l"][key] = value;
    document["water"]["rows"].push_back({{"key", key}, {"mg_per_l", typed(value)}});
  }
  const double ph = between(6.5, 8), ec = between(0.2, 0.8);
  script["water"]["ph"] = ph;
  document["water"]["ph"] = typed(ph);
  script["water"]["ec_ms_per_cm"] = ec;
  document["water"]["ec"] = {{"amount", typed(ec * 1000)}, {"unit", "uS/cm"}};
  script["target_mg_per_l"] = script["tolerance_percent"] = script["max_mg_per_l"] = Json::object();
  document["target"] = {
      {"name", "T"}, {"rows", Json::array()}, {"caps", Json::array()}, {"ratios", Json::array()}};
  for (const auto& [key, usual] :
       {std::pair{"N", 170.0}, {"P", 40.0}, {"K", 220.0}, {"Ca", 140.0}, {"Mg", 35.0}}) {
    const double value = between(0.7 * usual, 1.3 * usual), band = between(2, 12);
    script["target_mg_per_l"][key] = value;
    script["tolerance_percent"][key] = band;
    document["target"]["rows"].push_back(
        {{"nutrient", key}, {"mg_per_l", typed(value)}, {"tolerance_percent", typed(band)}});
  }
  const double cap = between(40, 120), ratio = between(1, 2);
  script["max_mg_per_l"]["Cl"] = cap;
  document["target"]["caps"].push_back({{"nutrient", "Cl"}, {"mg_per_l", typed(cap)}});
  script["ratios"] = {{{"above", {"K"}}, {"below", {"Ca"}}, {"value", ratio}, {"basis", "moles"}}};
  document["target"]["ratios"] = {
      {{"above", {"K"}}, {"below", {"Ca"}}, {"value", typed(ratio)}, {"basis", "moles"}}};
  document["shelf"] = Json::array();
  for (const auto* formula : {"KNO3", "Ca(NO3)2·4H2O", "KH2PO4", "MgSO4·7H2O", "K2SO4", "NH4NO3"}) {
    const double purity = between(96, 100);
    script["products"].push_back({{"id", formula}, {"formula", formula}, {"purity_percent", purity}});
    document["shelf"].push_back({{"id", formula}, {"formula", formula}, {"purity_percent", typed(purity)}});
  }
  const double potash = between(20, 40);
  script["products"].push_back({{"id", "blend"}, {"label_percent", {{"K2O", potash}, {"P2O5", 12.5}}}});
  document["shelf"].push_back(
      {{"id", "blend"},
       {"label", {{{"key", "K2O"}, {"percent", typed(potash)}}, {{"key", "P2O5"}, {"percent", "12.5"}}}}});
  const double litres = between(200, 2000), factor = between(50, 150), cold = between(4, 20),
               margin = between(0, 20);
  script["volume_l"] = litres;
  document["batch"] = {{"amount", typed(litres)}, {"unit", "L"}};
  script["stock"] = {{"factor", factor},
                     {"temperature_c", cold},
                     {"margin_percent", margin},
                     {"tanks", {{"A", {{"volume_l", 50}}}, {"B", {{"volume_l", 60}, {"use", "salts"}}}}}};
  document["stock"] = {{"factor", typed(factor)},
                       {"coldest", {{"amount", typed(cold)}, {"unit", "C"}}},
                       {"margin_percent", typed(margin)},
                       {"tanks",
                        {{{"name", "A"}, {"volume", {{"amount", "50"}, {"unit", "L"}}}},
                         {{"name", "B"}, {"volume", {{"amount", "60"}, {"unit", "L"}}}, {"use", "salts"}}}}};
  return out;
}

void expectSame(const core::Answer& a, const core::Answer& b, int round) {
  ASSERT_EQ(a.solution.grams.size(), b.solution.grams.size());
  for (std::size_t j = 0; j < a.solution.grams.size(); ++j)
    EXPECT_NEAR(a.solution.grams[j].grams(), b.solution.grams[j].grams(),
                1e-9 * (1 + a.solution.grams[j].grams()))
        << round;
  EXPECT_NEAR(a.feed.conductivity.milliSiemensPerCm(), b.feed.conductivity.milliSiemensPerCm(), 1e-12)
      << round;
  EXPECT_EQ(a.solution.status, b.solution.status) << round;
  EXPECT_EQ(a.solution.reasons.size(), b.solution.reasons.size()) << round;
  ASSERT_EQ(a.stock.tanks.size(), b.stock.tanks.size());
  for (std::size_t t = 0; t < a.stock.tanks.size(); ++t) {
    EXPECT_NEAR(a.stock.tanks[t].total().grams(), b.stock.tanks[t].total().grams(), 1e-6) << round;
    EXPECT_EQ(a.stock.tanks[t].maxFactor.has_value(), b.stock.tanks[t].maxFactor.has_value()) << round;
  }
}

TEST(Dialects, TheSameFormulaGivesTheSameAnswer) {
  std::mt19937 random(20261129);
  for (int round = 0; round < 60; ++round) {
    const auto both = randomFormula(random);
    const auto script = readScriptInput(both.script.dump());
    ASSERT_TRUE(script) << words::problemLine(script.problem());
    const auto document = readFormulaDocument(both.document);
    ASSERT_TRUE(document) << words::problemLine(document.problem());
    auto given = document->given;
    given.errors = script->given.errors; // how exactly a hand works is a matter of the window's usual figures
    given.steps.clear();
    const auto a = core::compute(script->given), b = core::compute(given);
    ASSERT_TRUE(a && b) << round;
    expectSame(*a, *b, round);
  }
}

/// A figure with a value in the writing of a dialect, in an object of its own.
std::optional<core::Problem> refusal(Dialect dialect, const Figure& what, double value) {
  Json object = Json::object();
  if (dialect == Dialect::Script)
    object[std::string(what.script)] = value;
  else if (what.typedUnit)
    object[std::string(what.document)] = {{"amount", typed(value)}, {"unit", std::string(what.unit)}};
  else
    object[std::string(what.document)] = typed(value);
  std::optional<core::Problem> problem;
  ObjectReader reader(object, "", problem);
  const auto read = figure(reader, dialect, what);
  reader.finish();
  EXPECT_EQ(read.has_value(), !problem.has_value());
  if (read) {
    EXPECT_DOUBLE_EQ(*read, value);
  }
  return problem;
}

TEST(Dialects, EveryFigureHasTheSameLimitsInBoth) {
  using namespace exchange::figures;
  for (const auto& what : {share,
                           ph,
                           waterTemperature,
                           waterConductivity,
                           rejection,
                           recovery,
                           hardnessLeft,
                           alkalinityLeft,
                           reported,
                           purity,
                           density,
                           price,
                           wantedMgPerL,
                           band,
                           rowWeight,
                           ratioValue,
                           ratioBand,
                           batch,
                           targetPh,
                           volumeError,
                           tankVolume,
                           tankFactor,
                           margin,
                           coldest,
                           coldWater,
                           readability,
                           capacity,
                           acrossCm,
                           lineFor,
                           feedPerDay,
                           fillDays,
                           seasonDays,
                           drawn,
                           setpoint,
                           perRun,
                           perMinute,
                           readingDose,
                           readingConductivity,
                           vesselVolume,
                           vesselPresent,
                           vesselReading}) {
    const std::string name(what.script);
    const double inside = what.least + (what.most - what.least) / 3;
    const double below = what.least - 0.001 * (1 + std::abs(what.least)), beyond = what.most * 1.01;
    for (const auto dialect : {Dialect::Script, Dialect::Document}) {
      EXPECT_FALSE(refusal(dialect, what, inside)) << name;
      EXPECT_FALSE(refusal(dialect, what, what.most)) << name << ": the limit itself is good";
      EXPECT_EQ(refusal(dialect, what, what.least).has_value(), what.above) << name;
      const auto low = refusal(dialect, what, below), high = refusal(dialect, what, beyond);
      ASSERT_TRUE(low && high) << name;
      EXPECT_THAT(high->where, ::testing::HasSubstr(
                                   std::string(dialect == Dialect::Script ? what.script : what.document)));
      EXPECT_THAT(words::problemLine(*high), ::testing::HasSubstr("out of range; it should be")) << name;
    }
  }
}

TEST(Dialects, AFaultSaysWhatWouldBeRight) {
  const auto refused = refusal(Dialect::Script, figures::margin, 95);
  EXPECT_EQ(words::problemLine(*refused), "margin_percent: 95 is out of range; it should be 0 to 90 %");
  const auto typedWrong = refusal(Dialect::Document, figures::tankVolume, 0);
  EXPECT_EQ(words::problemLine(*typedWrong), "volume.amount: 0 L is out of range; it should be above 0 L");
  const auto open = refusal(Dialect::Script, {"x", "x", "g", 2}, 1);
  EXPECT_EQ(words::problemLine(*open), "x: 1 is out of range; it should be 2 or more g");
}

TEST(Dialects, AnAmountIsReadInAnyUnitOfItsKind) {
  std::optional<core::Problem> problem;
  const Json object{{"volume", {{"amount", "55"}, {"unit", "gal_us"}}}};
  ObjectReader reader(object, "", problem);
  const auto litres = figure(reader, Dialect::Document, figures::tankVolume);
  ASSERT_TRUE(litres);
  EXPECT_NEAR(*litres, 208.19764812, 1e-9); // 231 cubic inches a gallon
  const Json wrong{{"volume", {{"amount", "55"}, {"unit", "kg"}}}};
  ObjectReader other(wrong, "", problem);
  EXPECT_FALSE(figure(other, Dialect::Document, figures::tankVolume));
  ASSERT_TRUE(problem);
  EXPECT_EQ(problem->where, "volume.unit");
}

} // namespace
