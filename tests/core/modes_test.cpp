/// Ratios, choice of products, audit, rounding together, shared stocks.
#include "solve/audit.h"
#include "solve/check.h"
#include "solve/choose_products.h"
#include "solve/joint_rounding.h"
#include "solve/many_crops.h"
#include "support/random_formula.h"

#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;

namespace {

SolveRequest fiveSalts() {
  SolveRequest request;
  request.water = pureWater();
  request.volume = Volume::fromLitres(10);
  request.shelf = {test::salt("KNO3"), test::salt("Ca(NO3)2·4H2O"), test::salt("KH2PO4"),
                   test::salt("MgSO4·7H2O"), test::salt("K2SO4")};
  // Hoagland & Arnon 1950, solution 1 (California Agric. Exp. Station Circular 347, from memory), rounded.
  request.rows = {{Nutrient::N, 210, 3, 1},  {Nutrient::P, 31, 3, 1},  {Nutrient::K, 235, 3, 1},
                  {Nutrient::Ca, 200, 3, 1}, {Nutrient::Mg, 49, 3, 1}, {Nutrient::S, 64, 3, 1}};
  return request;
}

} // namespace

TEST(Ratios, AreHeldAsAWishAmongTheOthers) {
  auto request = fiveSalts();
  request.rows = {{Nutrient::Ca, 150, 5, 1}, {Nutrient::N, 200, 50, 0.01}};
  request.ratios = {{{Nutrient::K}, {Nutrient::Ca}, 1.5, RatioBasis::Mass, 2, 1}};
  auto answer = solve(request);
  ASSERT_TRUE(answer);
  EXPECT_NEAR(*ratioOf(request.ratios[0], test::feedOf(request, answer->grams)), 1.5, 0.01);
  EXPECT_EQ(checkAnswer(request, *answer), AnswerFault::None);
  // K : (Ca + Mg) in equivalents; by hand: 5 meq/L of K against 10.
  request.rows = {{Nutrient::Ca, 200.4, 1, 1}, {Nutrient::Mg, 0, 1, 1}};
  request.ratios = {{{Nutrient::K}, {Nutrient::Ca, Nutrient::Mg}, 0.5, RatioBasis::Equivalents, 1, 1}};
  request.require = Require::Bands;
  answer = solve(request);
  ASSERT_EQ(answer->status, SolveStatus::Met);
  EXPECT_NEAR(test::feedOf(request, answer->grams).of(Nutrient::K), 5 * 39.098, 5.0);
  request.rows = {{Nutrient::N, 100}};
  EXPECT_EQ(solve(request).problem().where, "ratios[0]") << "neither side has a target";
}

TEST(Ratios, OnTheirBasis) {
  NutrientAmounts feed;
  feed.add(Nutrient::K, 39.098);
  feed.add(Nutrient::Ca, 40.078);
  EXPECT_NEAR(*ratioOf({{Nutrient::K}, {Nutrient::Ca}, 1, RatioBasis::Moles}, feed), 1, 1e-3);
  EXPECT_NEAR(*ratioOf({{Nutrient::K}, {Nutrient::Ca}, 1, RatioBasis::Equivalents}, feed), 0.5, 1e-3);
  EXPECT_FALSE(ratioOf({{Nutrient::K}, {Nutrient::P}, 1, RatioBasis::Mass}, feed));
}

TEST(ChooseProducts, BuysOnlyWhatIsMissing) {
  auto request = fiveSalts();
  const auto magnesium = request.shelf[3];
  request.shelf.erase(request.shelf.begin() + 3);
  ProductChoice choice;
  choice.toBuy = {test::salt("NH4NO3"), magnesium, test::salt("(NH4)2SO4")};
  const auto chosen = chooseProducts(request, choice);
  ASSERT_TRUE(chosen);
  EXPECT_EQ(chosen->answer.status, SolveStatus::Met);
  EXPECT_THAT(chosen->buy, ::testing::ElementsAre("MgSO4·7H2O"));
  EXPECT_TRUE(chosen->proven);
}

TEST(ChooseProducts, HeldBagsCountAndTooFewIsAnAnswerToo) {
  auto request = fiveSalts();
  request.shelf[4].locked = test::grams(0.5);
  ProductChoice choice;
  choice.atMost = 2;
  const auto chosen = chooseProducts(request, choice);
  ASSERT_TRUE(chosen);
  EXPECT_LE(chosen->used.size(), 2u);
  EXPECT_THAT(chosen->used, ::testing::Contains("K2SO4"));
  EXPECT_EQ(chosen->answer.status, SolveStatus::Best);
  request.objective = Objective::Cheapest;
  EXPECT_EQ(chooseProducts(request, choice).problem().code, ProblemCode::NeedsPrice);
}

TEST(ChooseProducts, CostTiesGoToTheFewestBags) {
  auto request = fiveSalts();
  // The same salt in two bags at one price, and a third that splits it: one bag will do.
  request.shelf = {test::salt("KNO3"), test::salt("KNO3")};
  request.shelf[1].id = "other bag";
  for (auto& p : request.shelf)
    p.pricePerKg = 1;
  request.rows = {{Nutrient::K, 200, 5, 1}};
  request.objective = Objective::Cheapest;
  ProductChoice choice;
  choice.fewest = true;
  EXPECT_EQ(chooseProducts(request, choice)->used.size(), 1u);
}

TEST(Audit, FindsTheMistypedLine) {
  const auto request = fiveSalts();
  const auto right = solve(request)->grams;
  ASSERT_EQ(suspectLines(request, right).size(), 0u);
  const std::pair<double, SheetSlip> slips[] = {
      {10, SheetSlip::DecimalPoint}, {0.1, SheetSlip::DecimalPoint}, {2, SheetSlip::Doubled},
      {0.5, SheetSlip::Halved},      {0, SheetSlip::LeftOut},        {2.2046, SheetSlip::KilogramsForPounds}};
  for (const auto& [factor, slip] : slips) {
    auto typed = right;
    typed[3] = typed[3] * factor;
    const auto suspects = suspectLines(request, typed);
    ASSERT_FALSE(suspects.empty()) << factor;
    EXPECT_EQ(suspects[0].product, "MgSO4·7H2O") << factor;
    EXPECT_EQ(suspects[0].slip, slip) << factor;
    EXPECT_NEAR(suspects[0].fits.grams() / right[3].grams(), 1, 0.05) << factor;
    EXPECT_THAT(suspects[0].thrownOff, ::testing::Contains(Nutrient::Mg)) << factor;
  }
}

TEST(JointRounding, EqualsTryingEveryStep) {
  std::mt19937 random(8);
  for (int k = 0; k < 60; ++k) {
    auto request = test::randomRequest(random);
    request.caps.clear();
    if (request.shelf.size() > 4) request.shelf.resize(4);
    for (auto& p : request.shelf) {
      p.locked.reset();
      p.most.reset();
    }
    request.volume = Volume::fromLitres(2);
    const auto exact = solve(request)->grams;
    const std::vector<Mass> steps(exact.size(), test::grams(0.25));
    const auto rounded = roundTogether(request, exact, steps);
    EXPECT_TRUE(rounded.proven);
    const auto misfit = [&](const std::vector<Mass>& grams) {
      const auto feed = test::feedOf(request, grams);
      double sum = 0;
      for (const auto& row : request.rows) {
        const double miss = (feed.of(row.nutrient) - row.milligramsPerLitre) / row.divisor();
        sum += row.weight * miss * miss;
      }
      return sum;
    };
    // The nearest fit's own misfit and what rounding adds stand at right angles.
    EXPECT_NEAR(misfit(rounded.grams) - misfit(exact), rounded.misfit, 1e-7);
    EXPECT_LE(rounded.misfit, rounded.oneByOne + 1e-8);
    // Every combination within three steps of each weight.
    double best = 1e300;
    std::vector<int> offset(exact.size(), -3);
    for (;;) {
      std::vector<Mass> tried = exact;
      bool possible = true;
      for (std::size_t j = 0; j < exact.size(); ++j) {
        if (exact[j] <= Mass{}) continue;
        const double whole = std::round(exact[j] / steps[j]) + offset[j];
        possible = possible && whole >= 0;
        tried[j] = whole * steps[j];
      }
      if (possible) best = std::min(best, misfit(tried));
      std::size_t j = 0;
      while (j < offset.size() && ++offset[j] > 3)
        offset[j++] = -3;
      if (j == offset.size()) break;
    }
    EXPECT_LE(misfit(rounded.grams), best + 1e-6) << k;
  }
}

/// Where prices or bands decided, the nearest fit is another formula: rounding must not drift towards it.
TEST(JointRounding, StaysAtTheFormulaThatWasComputed) {
  auto request = fiveSalts();
  double price = 1;
  for (auto& p : request.shelf)
    p.pricePerKg = price += 0.7;
  for (auto& row : request.rows)
    row.tolerancePercent = 15;
  request.objective = Objective::Cheapest;
  request.volume = Volume::fromLitres(1000);
  const auto cheapest = solve(request)->grams;
  const auto rounded = roundTogether(request, cheapest, std::vector<Mass>(cheapest.size(), test::grams(1)));
  for (std::size_t j = 0; j < cheapest.size(); ++j)
    EXPECT_NEAR(rounded.grams[j].grams(), cheapest[j].grams(), 3) << request.shelf[j].id;
}

TEST(JointRounding, LeavesHeldWeightsAndStepsOfZero) {
  auto request = fiveSalts();
  request.shelf[0].locked = test::grams(5.037);
  const auto exact = solve(request)->grams;
  std::vector<Mass> steps(exact.size(), test::grams(1));
  steps[1] = Mass{};
  const auto rounded = roundTogether(request, exact, steps);
  EXPECT_EQ(rounded.grams[0], exact[0]);
  EXPECT_EQ(rounded.grams[1], exact[1]);
  EXPECT_DOUBLE_EQ(rounded.grams[3].grams(), std::round(rounded.grams[3].grams()));
}

TEST(ManyCrops, OneCropLosesNothingAndTwinsShareAll) {
  const auto request = fiveSalts();
  ManyCropsRequest many{request.water, request.shelf, {{"one", request.rows, 1}}, false};
  const auto alone = manyCrops(many);
  ASSERT_TRUE(alone);
  EXPECT_NEAR(alone->crops[0].misfit, alone->crops[0].ownMisfit, 1e-9);
  auto half = request.rows;
  for (auto& row : half)
    row.milligramsPerLitre /= 2;
  many.crops.push_back({"half as strong", half, 1});
  const auto both = manyCrops(many);
  EXPECT_NEAR(both->crops[1].strength, 0.5, 1e-4) << "from pure water a weaker crop is a dilution";
  EXPECT_NEAR(both->crops[1].misfit, both->crops[1].ownMisfit, 1e-6);
}

TEST(ManyCrops, WhatWeighsMoreIsMissedLess) {
  const auto request = fiveSalts();
  const auto missOf = [&](double weight) { // of potassium, which two crops want in another share
    ManyCropsRequest many{
        request.water, request.shelf, {{"a", request.rows, 1}, {"b", request.rows, 1}}, false};
    for (std::size_t c = 0; c < 2; ++c)
      for (auto& row : many.crops[c].rows)
        if (row.nutrient == Nutrient::K) row.milligramsPerLitre *= c == 0 ? 0.6 : 1.5, row.weight = weight;
    const auto found = manyCrops(many);
    double sum = 0;
    for (std::size_t c = 0; found && c < 2; ++c)
      for (const auto& row : many.crops[c].rows)
        if (row.nutrient == Nutrient::K)
          sum += std::pow(row.deviationPercent(found->crops[c].milligramsPerLitre.of(Nutrient::K)), 2);
    return sum;
  };
  const double light = missOf(0.2), usual = missOf(1), heavy = missOf(5);
  EXPECT_LT(usual, 0.95 * light);
  EXPECT_LT(heavy, 0.95 * usual);
}

TEST(ManyCrops, ACorrectionNeverHurtsAndIsOneSalt) {
  std::mt19937 random(9);
  for (int k = 0; k < 20; ++k) {
    ManyCropsRequest many;
    const auto base = fiveSalts();
    many.water = base.water;
    many.shelf = base.shelf;
    for (int c = 0; c < 3; ++c) {
      auto rows = base.rows;
      for (auto& row : rows)
        row.milligramsPerLitre *= 0.5 + random() / 4294967296.0;
      many.crops.push_back({"crop", rows, 1});
    }
    many.corrections = false;
    const auto plain = manyCrops(many);
    many.corrections = true;
    const auto corrected = manyCrops(many);
    double without = 0, with = 0;
    for (std::size_t c = 0; c < 3; ++c) {
      without += plain->crops[c].misfit;
      with += corrected->crops[c].misfit;
      EXPECT_GE(corrected->crops[c].correctionGramsPerLitre, 0);
      EXPECT_GE(plain->crops[c].misfit, plain->crops[c].ownMisfit - 1e-9);
      // What is said of a crop's feed is what the weights bring: stocks by their strength, and the extra
      // salt.
      const auto& crop = corrected->crops[c];
      auto feed = many.water.milligramsPerLitre;
      for (std::size_t j = 0; j < many.shelf.size(); ++j) {
        const double extra = crop.correction == j ? crop.correctionGramsPerLitre : 0;
        feed.addScaled(many.shelf[j].composition.massFraction,
                       1000 * (crop.strength * corrected->gramsPerLitre[j] + extra));
      }
      for (const auto n : allNutrients)
        EXPECT_NEAR(crop.milligramsPerLitre.of(n), feed.of(n), 1e-9) << nutrientKey(n);
    }
    EXPECT_LE(with, without + 1e-9);
  }
}

TEST(ManyCrops, NeedsCropsWithTargets) {
  EXPECT_EQ(manyCrops({pureWater(), {}, {}, true}).problem().where, "crops");
  EXPECT_EQ(manyCrops({pureWater(), {}, {{"empty", {}, 1}}, true}).problem().where, "crops[0]");
}
