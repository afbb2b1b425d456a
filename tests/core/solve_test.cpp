#include "formula/mix.h"
#include "solve/check.h"
#include "solve/solve.h"
#include "support/shelf_builder.h"

#include <gmock/gmock.h>
#include <random>

using namespace butte;
using namespace butte::core;
using ::testing::HasSubstr;

namespace {

SolveRequest hoagland1() {
  SolveRequest r;
  r.water = pureWater();
  r.shelf = {test::salt("KNO3"), test::salt("Ca(NO3)2"), test::salt("KH2PO4"), test::salt("MgSO4")};
  r.volume = test::litres(1);
  r.rows = {{Nutrient::N, 210.105}, {Nutrient::P, 30.974}, {Nutrient::K, 234.588},
            {Nutrient::Ca, 200.39}, {Nutrient::Mg, 48.61}, {Nutrient::S, 64.12}};
  return r;
}

SolveAnswer solved(const SolveRequest& r) {
  const auto answer = solve(r);
  EXPECT_TRUE(answer);
  EXPECT_EQ(checkAnswer(r, *answer), AnswerFault::None);
  return *answer;
}

} // namespace

// Hoagland & Arnon 1950, solution 1 (from memory): mg/L back to its molar recipe.
TEST(Solve, HoaglandOneComesBackToItsSalts) {
  const auto answer = solved(hoagland1());
  EXPECT_EQ(answer.status, SolveStatus::Met);
  EXPECT_NEAR(answer.grams[0].grams(), 0.50551, 2e-4);
  EXPECT_NEAR(answer.grams[1].grams(), 0.82043, 2e-4);
  EXPECT_NEAR(answer.grams[2].grams(), 0.136084, 2e-4);
  EXPECT_NEAR(answer.grams[3].grams(), 0.240722, 2e-4);
}

// Hoagland & Arnon 1950, solution 2 (from memory).
TEST(Solve, HoaglandTwoComesBackToItsSalts) {
  auto r = hoagland1();
  r.shelf[2] = test::salt("NH4H2PO4");
  r.rows = {{Nutrient::NNitrate, 196.098}, {Nutrient::NAmmonium, 14.007}, {Nutrient::P, 30.974},
            {Nutrient::K, 234.588},        {Nutrient::Ca, 160.312},       {Nutrient::Mg, 48.61},
            {Nutrient::S, 64.12}};
  const auto answer = solved(r);
  EXPECT_EQ(answer.status, SolveStatus::Met);
  EXPECT_NEAR(answer.grams[0].grams(), 0.606612, 2e-4);
  EXPECT_NEAR(answer.grams[1].grams(), 0.656344, 2e-4);
  EXPECT_NEAR(answer.grams[2].grams(), 0.115025, 2e-4);
}

// Steiner 1984, universal solution (from memory).
TEST(Solve, SteinerComesBackToItsSalts) {
  SolveRequest r;
  r.water = pureWater();
  r.shelf = {test::salt("KNO3"), test::salt("KH2PO4"), test::salt("K2SO4"), test::salt("Ca(NO3)2·4H2O"),
             test::salt("MgSO4·7H2O")};
  r.volume = test::litres(1000);
  r.rows = {{Nutrient::N, 168.084},  {Nutrient::P, 30.974}, {Nutrient::K, 273.686},
            {Nutrient::Ca, 180.351}, {Nutrient::Mg, 48.61}, {Nutrient::S, 112.21}};
  const auto answer = solved(r);
  EXPECT_NEAR(answer.grams[0].grams(), 303.306, 0.1);
  EXPECT_NEAR(answer.grams[1].grams(), 136.084, 0.1);
  EXPECT_NEAR(answer.grams[2].grams(), 261.378, 0.1);
  EXPECT_NEAR(answer.grams[3].grams(), 1062.657, 0.2);
  EXPECT_NEAR(answer.grams[4].grams(), 492.932, 0.1);
}

TEST(Solve, TheWatersShareCountsFirst) {
  auto r = hoagland1();
  r.water = test::waterOf({{"Ca", 100}, {"HCO3", 304}});
  const auto answer = solved(r);
  const auto plain = solved(hoagland1());
  EXPECT_LT(answer.grams[1], plain.grams[1] * 0.7);
}

TEST(Solve, ALockedWeightStaysToTheLastDigitAndTheRestGivesWay) {
  auto r = hoagland1();
  r.shelf[0].locked = test::grams(0.3);
  const auto answer = solved(r);
  EXPECT_EQ(answer.grams[0].grams(), 0.3);
  EXPECT_EQ(answer.status, SolveStatus::Best);
}

TEST(Solve, BoundsHold) {
  auto r = hoagland1();
  r.shelf[1].most = test::grams(0.5);
  r.shelf[3].least = test::grams(0.4);
  const auto answer = solved(r);
  EXPECT_DOUBLE_EQ(answer.grams[1].grams(), 0.5);
  EXPECT_DOUBLE_EQ(answer.grams[3].grams(), 0.4);
}

TEST(Solve, CapsAreHard) {
  auto r = hoagland1();
  r.shelf.push_back(test::salt("NaNO3"));
  r.shelf[0].most = test::grams(0);
  r.caps = {{Nutrient::Na, 20}};
  r.rows[0].weight = 10;
  const auto answer = solved(r);
  const auto feed = mix(r.water, r.shelf, answer.grams, r.volume);
  EXPECT_NEAR(feed.milligramsPerLitre.of(Nutrient::Na), 20, 1e-6); // wants more, stands at the cap
}

TEST(Solve, ACapBelowTheWaterIsImpossible) {
  auto r = hoagland1();
  r.water = test::waterOf({{"Na", 50}, {"Cl", 77}});
  r.caps = {{Nutrient::Na, 40}};
  const auto answer = solve(r);
  ASSERT_TRUE(answer);
  EXPECT_EQ(answer->status, SolveStatus::Impossible);
  EXPECT_EQ(answer->reasons.at(0).kind, ReasonKind::WaterOverCap);
}

TEST(Solve, AmongEqualFitsTheLeastSumOfSquaresIsTaken) {
  auto r = hoagland1();
  r.shelf.push_back(r.shelf[0]); // the same salt twice
  r.shelf.back().id = "twin";
  const auto answer = solved(r);
  EXPECT_NEAR(answer.grams[0].grams(), answer.grams[4].grams(), 1e-9);
  EXPECT_NEAR(answer.grams[0].grams() * 2, solved(hoagland1()).grams[0].grams(), 1e-9);
}

TEST(Solve, TheSameInputGivesTheSameBits) {
  auto r = hoagland1();
  r.shelf.push_back(test::salt("K2SO4"));
  r.shelf.push_back(test::salt("Mg(NO3)2·6H2O"));
  r.shelf.push_back(test::salt("NH4NO3"));
  const auto first = solved(r), second = solved(r);
  for (std::size_t j = 0; j < first.grams.size(); ++j)
    EXPECT_EQ(first.grams[j].grams(), second.grams[j].grams());
}

TEST(Solve, ATargetOfZeroCountsInMilligrams) {
  auto r = hoagland1();
  r.rows.push_back({Nutrient::NAmmonium, 0});
  EXPECT_EQ(solved(r).status, SolveStatus::Met);
}

TEST(Solve, BandsDecideTheStatusAndRequireBandsMayRefuse) {
  auto r = hoagland1();
  r.shelf.erase(r.shelf.begin() + 2); // no phosphorus left
  EXPECT_EQ(solved(r).status, SolveStatus::Best);
  r.require = Require::Bands;
  const auto answer = solve(r);
  EXPECT_EQ(answer->status, SolveStatus::Impossible);
  EXPECT_FALSE(answer->reasons.empty());
}

TEST(Solve, RequireBandsFindsAFitInsideThemThatPlainFittingMisses) {
  // Plain fitting spreads the miss; within the bands K must reach 95 % at least.
  auto r = hoagland1();
  r.shelf = {test::salt("KNO3")};
  r.rows = {{Nutrient::K, 100, 5, 1}, {Nutrient::N, 30, 15, 1}};
  EXPECT_EQ(solved(r).status, SolveStatus::Best);
  r.rows[1].tolerancePercent = 25;
  r.require = Require::Bands;
  EXPECT_EQ(solved(r).status, SolveStatus::Met);
}

TEST(Cheapest, TakesTheCheaperSaltWithinTheBands) {
  SolveRequest r;
  r.water = pureWater();
  r.objective = Objective::Cheapest;
  r.shelf = {test::salt("KNO3"), test::salt("K2SO4"), test::salt("KCl")};
  r.shelf[0].pricePerKg = 2;
  r.shelf[1].pricePerKg = 1.5;
  r.shelf[2].pricePerKg = 0.5;
  r.rows = {{Nutrient::K, 200}};
  auto answer = solved(r);
  EXPECT_EQ(answer.status, SolveStatus::Met);
  EXPECT_EQ(answer.grams[0].grams(), 0);
  EXPECT_NEAR(answer.grams[2].grams() * 39.098 / 74.548 * 1000, 190, 1e-6); // the lower edge of the band
  r.caps = {{Nutrient::Cl, 50}};
  answer = solved(r);
  EXPECT_GT(answer.grams[1].grams(), 0);
}

TEST(Cheapest, LeavesTheBandsAsLittleAsItMustThenSaves) {
  SolveRequest r;
  r.water = pureWater();
  r.objective = Objective::Cheapest;
  r.shelf = {test::salt("KNO3")};
  r.shelf[0].pricePerKg = 2;
  r.rows = {{Nutrient::K, 100}, {Nutrient::N, 10}};
  const auto answer = solved(r);
  EXPECT_EQ(answer.status, SolveStatus::Best);
  // N is the relatively costlier miss: K gives way until N is at its upper edge of 10.5 mg/L.
  EXPECT_NEAR(answer.grams[0].grams() * 14.007 / 101.102 * 1000, 10.5, 1e-6);
  r.require = Require::Bands;
  EXPECT_EQ(solve(r)->status, SolveStatus::Impossible);
}

TEST(Cheapest, NeedsEveryPrice) {
  auto r = hoagland1();
  r.objective = Objective::Cheapest;
  EXPECT_EQ(solve(r).problem().code, ProblemCode::NeedsPrice);
}

TEST(Acid, IsNoFreeSourceOfNitrogen) {
  auto r = hoagland1();
  r.shelf.push_back(test::salt("HNO3", 60));
  const auto answer = solved(r);
  EXPECT_EQ(answer.grams[4].grams(), 0);
  ASSERT_EQ(answer.warnings.size(), 1u);
  EXPECT_EQ(answer.warnings[0].first, SolveWarning::AcidLeftOut);
}

TEST(Acid, TakesTheAlkalinityDownToTheRestAndNoFurther) {
  auto r = hoagland1();
  r.water = test::waterOf({{"Ca", 78}, {"Mg", 14}, {"HCO3", 305.08}}); // 5 meq/L
  r.shelf.push_back(test::salt("HNO3", 60));
  r.alkalinityLeftMeqPerL = 0.5;
  const auto answer = solved(r);
  const auto feed = mix(r.water, r.shelf, answer.grams, r.volume);
  EXPECT_NEAR(feed.netAlkalinityMeqPerL, 0.5, 1e-9);
  // 4.5 meq/L of nitric acid bring 63 mg/L of N: the nitrates give way.
  EXPECT_NEAR(answer.grams[4].grams(), 4.5 * 63.013 / 1000 / 0.6, 1e-4);
  EXPECT_LT(answer.grams[0] + answer.grams[1], test::grams(0.50551 + 0.82043));
}

TEST(Acid, NoDoseWithoutKnownAlkalinityOrWithoutNeed) {
  auto r = hoagland1();
  r.shelf.push_back(test::salt("HNO3", 60));
  r.alkalinityLeftMeqPerL = 0.5;
  EXPECT_EQ(solved(r).warnings.at(0).first, SolveWarning::AlkalinityAlreadyBelow);
  r.water = test::waterOf({{"Ca", 78}});
  const auto answer = solved(r);
  EXPECT_EQ(answer.grams[4].grams(), 0);
  EXPECT_EQ(answer.warnings.at(0).first, SolveWarning::AcidNeedsAlkalinity);
}

TEST(Acid, ALimitedAcidTakesWhatItCanAndSaysSo) {
  auto r = hoagland1();
  r.water = test::waterOf({{"Ca", 100}, {"HCO3", 305.08}});
  r.shelf.push_back(test::salt("HNO3", 100));
  r.shelf.back().most = test::grams(0.063013);
  r.alkalinityLeftMeqPerL = 0.5;
  const auto answer = solved(r);
  EXPECT_NEAR(answer.grams[4].grams(), 0.063013, 1e-9);
  EXPECT_EQ(answer.warnings.at(0).first, SolveWarning::AlkalinityNotReached);
}

TEST(Solve, AnEmptyShelfAndAnEmptyTargetAreAnswered) {
  auto r = hoagland1();
  r.shelf.clear();
  EXPECT_EQ(solved(r).status, SolveStatus::Best);
  r = hoagland1();
  r.rows.clear();
  const auto answer = solved(r);
  EXPECT_EQ(answer.status, SolveStatus::Met);
  for (const auto& g : answer.grams)
    EXPECT_EQ(g.grams(), 0);
}

/// Random shelves, waters, caps and locks: every answer must pass the independent check.
TEST(Solve, RandomFormulasPassTheIndependentCheck) {
  const char* formulas[] = {"KNO3",
                            "Ca(NO3)2·4H2O",
                            "KH2PO4",
                            "MgSO4·7H2O",
                            "K2SO4",
                            "NH4NO3",
                            "NH4H2PO4",
                            "(NH4)2SO4",
                            "KCl",
                            "CaCl2·2H2O",
                            "Mg(NO3)2·6H2O",
                            "MnSO4·H2O",
                            "ZnSO4·7H2O",
                            "H3BO3",
                            "CuSO4·5H2O",
                            "Na2MoO4·2H2O",
                            "C10H12N2NaFeO8·3H2O",
                            "NaNO3",
                            "HNO3"};
  std::mt19937 random(7);
  const auto unit = [&] { return random() / 4294967296.0; };
  for (int i = 0; i < 300; ++i) {
    SolveRequest r;
    r.water = test::waterOf(
        {{"Ca", 80 * unit()}, {"Mg", 20 * unit()}, {"Na", 60 * unit()}, {"HCO3", 300 * unit()}});
    for (const char* f : formulas) {
      if (unit() < 0.35) continue;
      r.shelf.push_back(test::salt(f));
      if (unit() < 0.1)
        r.shelf.back().locked = test::grams(0.3 * unit());
      else if (unit() < 0.2)
        r.shelf.back().most = test::grams(0.5 * unit());
    }
    for (const auto n : {Nutrient::N, Nutrient::P, Nutrient::K, Nutrient::Ca, Nutrient::Mg, Nutrient::S,
                         Nutrient::Fe, Nutrient::Mn, Nutrient::B})
      if (unit() < 0.85) r.rows.push_back({n, (isTraceElement(n) ? 3 : 250) * unit(), 5, 0.1 + 3 * unit()});
    if (unit() < 0.5) r.caps = {{Nutrient::Na, 150 + 50 * unit()}, {Nutrient::Cl, 250 * unit() + 200}};
    if (unit() < 0.3) r.alkalinityLeftMeqPerL = unit();
    const auto answer = solve(r);
    ASSERT_TRUE(answer);
    EXPECT_EQ(checkAnswer(r, *answer), AnswerFault::None) << "case " << i;
  }
}
