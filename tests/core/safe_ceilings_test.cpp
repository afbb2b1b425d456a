// What may poison: trace salts as a source of something else, and elements that stand where they harm.
#include "formula/formula_answer.h"
#include "product/shipped.h"
#include "solve/check.h"
#include "solve/many_crops.h"
#include "solve/mends.h"
#include "solve/trace_guard.h"
#include "support/random_formula.h"

#include <gmock/gmock.h>

namespace butte::core {
namespace {

using test::salt;

SolveRequest withoutPotassiumSulfate() {
  SolveRequest request;
  request.water = pureWater();
  request.volume = test::litres(1000);
  for (const char* formula : {"Ca(NO3)2·4H2O", "KNO3", "KH2PO4", "MnSO4·H2O", "CuSO4·5H2O", "ZnSO4·7H2O"})
    request.shelf.push_back(salt(formula));
  request.rows = {{Nutrient::K, 200, 5, 1}, {Nutrient::Ca, 120, 5, 1}, {Nutrient::S, 60, 5, 1}};
  return request;
}

double brought(const SolveRequest& request, const SolveAnswer& answer, Nutrient nutrient) {
  return test::feedOf(request, answer.grams).of(nutrient);
}

TEST(TraceGuard, NoSulfurComesFromManganeseCopperAndZinc) {
  for (const auto require : {Require::Best, Require::BandsFirst}) {
    auto request = withoutPotassiumSulfate();
    request.require = require;
    const auto answer = solve(request);
    ASSERT_TRUE(answer);
    EXPECT_LE(brought(request, *answer, Nutrient::Mn), 1.0 + 1e-9);
    EXPECT_LE(brought(request, *answer, Nutrient::Cu), 0.2 + 1e-9);
    EXPECT_LE(brought(request, *answer, Nutrient::Zn), 1.0 + 1e-9);
    EXPECT_LT(brought(request, *answer, Nutrient::S), 5) << "sulfur is short, and said to be";
    EXPECT_EQ(checkAnswer(request, *answer), AnswerFault::None);
    const auto reason = std::find_if(answer->reasons.begin(), answer->reasons.end(),
                                     [](const Reason& r) { return r.nutrient == Nutrient::S; });
    ASSERT_NE(reason, answer->reasons.end());
    EXPECT_TRUE(std::any_of(reason->limits.begin(), reason->limits.end(),
                            [](const BindingLimit& l) { return l.kind == LimitKind::SafeCeiling; }));
  }
}

TEST(TraceGuard, ACapOnTheElementLiftsItAndATargetRulesAlone) {
  auto request = withoutPotassiumSulfate();
  request.caps = {{Nutrient::Mn, 40}};
  EXPECT_GT(brought(request, *solve(request), Nutrient::Mn), 5) << "asked for by name";
  request.caps.clear();
  request.rows.push_back({Nutrient::Zn, 3, 5, 1});
  EXPECT_NEAR(brought(request, *solve(request), Nutrient::Zn), 3, 0.2);
  EXPECT_EQ(traceGuards(request).size(), 2u) << "manganese and copper are still guarded";
}

SolveRequest plainIronAnd(const char* other) {
  SolveRequest request;
  request.water = pureWater();
  request.volume = test::litres(1000);
  request.shelf = {salt("KNO3"), salt("FeSO4·7H2O"), salt(other)};
  request.rows = {{Nutrient::K, 200, 5, 1}, {Nutrient::Fe, 2, 10, 1}};
  return request;
}

bool warns(const SolveAnswer& answer, SolveWarning warning, const std::string& product) {
  return std::find(answer.warnings.begin(), answer.warnings.end(), std::pair(warning, product)) !=
         answer.warnings.end();
}

// Common practice: iron(II) rusts out of a feed above pH 5; a chelate keeps it.
TEST(PlainIron, AChelateOnTheShelfBringsTheIron) {
  for (const auto require : {Require::Best, Require::BandsFirst, Require::Bands}) {
    auto request = plainIronAnd("C10H12FeN2NaO8");
    request.require = require;
    const auto answer = solve(request);
    ASSERT_TRUE(answer);
    ASSERT_EQ(answer->grams.size(), 3u);
    EXPECT_EQ(answer->grams[1], Mass{});
    EXPECT_NEAR(brought(request, *answer, Nutrient::Fe), 2, 0.21);
    EXPECT_EQ(checkAnswer(request, *answer), AnswerFault::None);
    EXPECT_TRUE(warns(*answer, SolveWarning::PlainIronLeftOut, request.shelf[1].id));
    EXPECT_FALSE(warns(*answer, SolveWarning::PlainIronRusts, request.shelf[1].id));
  }
}

TEST(PlainIron, WithoutAChelateItIsUsedAndSaid) {
  const auto request = plainIronAnd("MgSO4·7H2O");
  const auto answer = solve(request);
  ASSERT_TRUE(answer);
  EXPECT_NEAR(brought(request, *answer, Nutrient::Fe), 2, 0.2);
  EXPECT_TRUE(warns(*answer, SolveWarning::PlainIronRusts, request.shelf[1].id));
  EXPECT_FALSE(warns(*answer, SolveWarning::PlainIronLeftOut, request.shelf[1].id));
}

TEST(PlainIron, AHeldWeightOrALimitedChelateLetsItIn) {
  auto held = plainIronAnd("C10H12FeN2NaO8");
  held.shelf[1].locked = test::grams(5); // 1 mg/L
  const auto both = solve(held);
  ASSERT_TRUE(both);
  EXPECT_EQ(both->grams[1], test::grams(5));
  EXPECT_NEAR(brought(held, *both, Nutrient::Fe), 2, 0.2) << "the chelate fills up";
  EXPECT_TRUE(warns(*both, SolveWarning::PlainIronRusts, held.shelf[1].id));

  auto limited = plainIronAnd("C10H12FeN2NaO8");
  limited.shelf[2].most = test::grams(1);
  const auto answer = solve(limited);
  ASSERT_TRUE(answer);
  EXPECT_GT(answer->grams[1], Mass{}) << "the bag of chelate does not reach";
  EXPECT_NEAR(brought(limited, *answer, Nutrient::Fe), 2, 0.2);
}

TEST(PlainIron, ABlendThatHoldsIronIsNotMeant) {
  EXPECT_TRUE(isPlainIron(salt("FeSO4·7H2O")));
  EXPECT_FALSE(isPlainIron(salt("C10H12FeN2NaO8")));
  EXPECT_FALSE(isPlainIron(salt("MgSO4·7H2O")));
  EXPECT_FALSE(isPlainIron(test::labelled("micros", {{"Fe", 6}, {"Mn", 2}}))) << "counted as a chelate";
}

TEST(TraceGuard, WhatIsHeldByHandStandsAndBlendsAreNotMeant) {
  auto request = withoutPotassiumSulfate();
  request.shelf[3].locked = test::grams(20); // 6.5 mg/L of manganese
  const auto answer = solve(request);
  ASSERT_TRUE(answer);
  EXPECT_NE(answer->status, SolveStatus::Impossible);
  EXPECT_NEAR(brought(request, *answer, Nutrient::Mn), 20 * 0.325, 0.1);
  request.shelf = {
      test::labelled("blend", {{"N_NO3", 4}, {"P2O5", 18}, {"K2O", 38}, {"B", 0.2}, {"Mn", 0.2}})};
  EXPECT_TRUE(traceGuards(request).empty());
}

TEST(TraceGuard, TheWatersOwnLeavesLessRoom) {
  auto request = withoutPotassiumSulfate();
  request.water = test::waterOf({{"Mn", 0.7}});
  EXPECT_LE(brought(request, *solve(request), Nutrient::Mn), 1.0 + 1e-9);
  request.water = test::waterOf({{"Mn", 3}});
  EXPECT_NEAR(brought(request, *solve(request), Nutrient::Mn), 3, 1e-9) << "none is added to too much";
}

TEST(TraceGuard, NoMendBuysATraceSaltForItsSulfur) {
  SolveRequest request;
  request.water = pureWater();
  request.volume = test::litres(1000);
  request.shelf = {salt("KNO3")};
  request.rows = {{Nutrient::K, 200, 5, 1}, {Nutrient::S, 60, 5, 1}};
  const auto answer = solve(request);
  for (const auto& mend : mendsFor(request, *answer, {salt("MnSO4·H2O"), salt("ZnSO4·7H2O")}, {}))
    EXPECT_NE(mend.kind, MendKind::AddProduct) << mend.product;
}

// Random shelves with every trace salt and no wish for a trace: never above what is safe, and the independent
// check agrees.
TEST(TraceGuard, RandomShelvesStayBelowWhatIsSafe) {
  std::mt19937 random(19);
  for (int i = 0; i < test::randomCases(300); ++i) {
    auto request = test::randomRequest(random);
    for (auto& product : request.shelf)
      product.locked.reset();
    for (const char* formula :
         {"MnSO4·H2O", "CuSO4·5H2O", "ZnSO4·7H2O", "FeSO4·7H2O", "(NH4)6Mo7O24·4H2O", "H3BO3"})
      if (random() % 2) request.shelf.push_back(salt(formula));
    if (random() % 2) request.require = Require::BandsFirst;
    const auto answer = solve(request);
    ASSERT_TRUE(answer) << i;
    if (answer->status == SolveStatus::Impossible) continue;
    for (const auto nutrient : allNutrients) {
      if (!isTraceElement(nutrient)) continue;
      EXPECT_LE(brought(request, *answer, nutrient), *unaskedMost(nutrient) * (1 + 1e-6))
          << i << nutrientKey(nutrient);
    }
    EXPECT_EQ(checkAnswer(request, *answer), AnswerFault::None) << i;
    EXPECT_TRUE(harmfulLevels(test::feedOf(request, answer->grams), "").empty() ||
                test::feedOf(request, answer->grams).of(Nutrient::NAmmonium) > 70 ||
                test::feedOf(request, answer->grams).of(Nutrient::Cl) > 350)
        << i;
  }
}

TEST(TraceGuard, SeveralCropsTakeNoSulfurFromManganeseEither) {
  ManyCropsRequest request;
  request.water = pureWater();
  request.shelf = {salt("KNO3"), salt("MnSO4·H2O"), salt("CuSO4·5H2O")};
  request.crops = {{"one", {{Nutrient::K, 200, 5, 1}, {Nutrient::S, 40, 5, 1}}},
                   {"other", {{Nutrient::K, 150, 5, 1}, {Nutrient::S, 60, 5, 1}}}};
  const auto answer = manyCrops(request);
  ASSERT_TRUE(answer);
  for (const auto& crop : answer->crops) {
    EXPECT_LE(crop.milligramsPerLitre.of(Nutrient::Mn), 1e-9);
    EXPECT_LE(crop.milligramsPerLitre.of(Nutrient::Cu), 1e-9);
    EXPECT_GT(crop.milligramsPerLitre.of(Nutrient::K), 100);
  }
  request.crops.front().rows.push_back({Nutrient::Mn, 0.5, 5, 1});
  const auto asked = manyCrops(request);
  ASSERT_TRUE(asked);
  EXPECT_GT(asked->crops.front().milligramsPerLitre.of(Nutrient::Mn), 0.05) << "asked for, it is taken";
}

TEST(Harmful, AnElementAlarmsWhetherItHasATargetOrNot) {
  Given given;
  given.request.shelf = {shippedProduct(*findInCatalogue("h3bo3")), shippedProduct(*findInCatalogue("kno3"))};
  given.request.shelf[0].locked = Mass::fromGrams(629); // 110 mg/L of boron in 1000 L
  given.request.volume = Volume::fromLitres(1000);
  given.request.rows = {{Nutrient::K, 200, 5, 1}};
  given.errors = usualErrors(given.request.shelf);
  given.stock.tanks = {{"A", Volume::fromLitres(100)}};
  const auto answer = compute(given);
  ASSERT_TRUE(answer);
  ASSERT_EQ(answer->harmful.size(), 1u);
  EXPECT_EQ(answer->harmful[0].nutrient, Nutrient::B);
  EXPECT_NEAR(answer->harmful[0].milligramsPerLitre, 110, 1);
  given.request.rows.push_back({Nutrient::B, 110, 5, 1});
  EXPECT_EQ(compute(given)->harmful.size(), 1u) << "a wish for it makes it no better";
}

TEST(Harmful, TheCropsOwnLimitCountsBeforeThatOfAny) {
  NutrientAmounts feed;
  feed.add(Nutrient::B, 1.5);
  EXPECT_TRUE(harmfulLevels(feed, "").empty());
  EXPECT_EQ(harmfulLevels(feed, "Strawberry, fruiting").size(), 1u);
  feed.add(Nutrient::B, 2);
  EXPECT_EQ(harmfulLevels(feed, "basil").size(), 1u);
  EXPECT_TRUE(harmfulLevels(feed, "Tomato").empty()) << "tomatoes bear boron";
  feed.add(Nutrient::Cu, 2);
  ASSERT_EQ(harmfulLevels(feed, "").size(), 2u);
  EXPECT_EQ(harmfulLevels(feed, "")[0].nutrient, Nutrient::Cu) << "four times its limit, boron not twice";
}

TEST(Harmful, NoPublishedTargetAlarms) {
  for (const auto& target : targetCatalogue()) {
    NutrientAmounts feed;
    for (const auto& row : target.rows)
      feed.add(row.nutrient, row.milligramsPerLitre);
    EXPECT_TRUE(harmfulLevels(feed, target.crop).empty()) << target.id;
  }
  for (const auto& ceiling : safeCeilings())
    EXPECT_FALSE(ceiling.source.empty() || ceiling.confidence.empty() || ceiling.why.empty());
}

} // namespace
} // namespace butte::core
