#include "solution/titration_fit.h"
#include "support/shelf_builder.h"

#include <cmath>
#include <gmock/gmock.h>
#include <random>

using namespace butte;
using namespace butte::core;

namespace {

constexpr double trueAlkalinity = 3.2e-3, trueCarbonate = 3.5e-3;

Solutes water(double alkalinity, double carbonate) {
  Solutes out;
  out.of(Component::Ca) = 1.2e-3;
  out.of(Component::Mg) = 0.4e-3;
  out.of(Component::Na) = 0.5e-3;
  out.of(Component::Cl) = 0.5e-3;
  out.of(Component::Carbonate) = carbonate;
  out.alkalinityEq = alkalinity;
  return out;
}

/// One meq per mL of the acid.
Solutes oneMeq(const char* formula) {
  const auto perGram = test::salt(formula).composition.solutesPerGram;
  return perGram.scaled(1e-3 / -perGram.alkalinityEq);
}

/// What a pen would read: the true water and bottle, with noise.
std::vector<TitrationReading> readings(const Solutes& acidPerMl, const std::vector<double>& doses,
                                       double noise, unsigned seed = 1) {
  std::mt19937 random(seed);
  Titrated sample{water(trueAlkalinity, trueCarbonate), 0.998, {}};
  sample.conditions.temperature = Temperature::fromCelsius(20);
  std::vector<TitrationReading> out;
  for (const double dose : doses) {
    double sum = -6; // twelve evenly spread numbers make nearly a normal one
    for (int i = 0; i < 12; ++i)
      sum += random() / 4294967296.0;
    out.push_back({dose, withDose(sample, acidPerMl, dose)->ph + noise * sum});
  }
  return out;
}

TitrationRequest request(const Solutes& acidPerMl, std::vector<TitrationReading> list) {
  TitrationRequest r;
  r.waterPerLitre = water(2.5e-3, 2.6e-3); // the report was wrong
  r.acidPerUnit = acidPerMl;
  r.readings = std::move(list);
  return r;
}

} // namespace

TEST(TitrationFit, TwoExactReadingsGiveTheAlkalinity) {
  const auto acid = oneMeq("HNO3");
  const auto fit = fitTitration(request(acid, readings(acid, {0, 2}, 0)));
  ASSERT_TRUE(fit);
  EXPECT_NEAR(fit->alkalinityEqPerLitre, trueAlkalinity, 0.01e-3);
  EXPECT_NEAR(fit->carbonateMolPerLitre, trueCarbonate, 0.02e-3);
}

TEST(TitrationFit, AWaterOfWhichNothingWasKnownIsFoundAsWell) {
  const auto acid = oneMeq("HNO3");
  auto r = request(acid, readings(acid, {0, 1, 2, 2.6}, 0));
  r.waterPerLitre = water(0, 0); // a report without alkalinity
  const auto fit = fitTitration(r);
  ASSERT_TRUE(fit);
  EXPECT_NEAR(fit->alkalinityEqPerLitre, trueAlkalinity, 0.01e-3);
  EXPECT_NEAR(fit->carbonateMolPerLitre, trueCarbonate, 0.02e-3);
}

TEST(TitrationFit, NoisyReadingsGiveItWithinWhatTheFitSaysOfItself) {
  const auto acid = oneMeq("H3PO4");
  int inside = 0;
  for (unsigned seed = 1; seed <= 40; ++seed) {
    const auto fit = fitTitration(request(acid, readings(acid, {0, 0.5, 1, 1.5, 2, 2.5, 2.8}, 0.05, seed)));
    ASSERT_TRUE(fit) << seed;
    EXPECT_LT(fit->alkalinityStandardError, 0.4e-3);
    inside += std::abs(fit->alkalinityEqPerLitre - trueAlkalinity) <= 2 * fit->alkalinityStandardError;
  }
  EXPECT_GE(inside, 34); // two standard errors hold about 95 in 100; seeds are fixed
}

TEST(TitrationFit, ADriftingPenIsNamedAndLeftOut) {
  const auto acid = oneMeq("HNO3");
  auto list = readings(acid, {0, 0.5, 1, 1.5, 2, 2.5, 3}, 0.01);
  list[3].ph += 0.6;
  const auto fit = fitTitration(request(acid, list));
  ASSERT_TRUE(fit);
  for (std::size_t i = 0; i < list.size(); ++i)
    EXPECT_EQ(fit->readings[i].outlier, i == 3) << i;
  EXPECT_NEAR(fit->alkalinityEqPerLitre, trueAlkalinity, 0.06e-3);
}

TEST(TitrationFit, AnUnlabelledBottleInAKnownWater) {
  const auto labelled = oneMeq("HNO3"); // a guess: the bottle really has 2.5 meq/mL
  auto r = request(labelled, readings(labelled.scaled(2.5), {0, 0.3, 0.6, 0.9, 1.1}, 0.01));
  r.waterPerLitre = water(trueAlkalinity, trueCarbonate);
  r.unknown = TitrationUnknown::Strength;
  const auto fit = fitTitration(r);
  ASSERT_TRUE(fit);
  EXPECT_NEAR(fit->strengthFactor, 2.5, 0.06);
  EXPECT_LT(fit->strengthStandardError, 0.3);
}

TEST(TitrationFit, BothAreFoundOnceTheReadingsGoPastTheSteepPart) {
  const auto labelled = oneMeq("HNO3");
  const std::vector<double> doses{0, 0.3, 0.6, 0.9, 1.2, 1.35, 1.6, 2, 2.4, 2.8};
  auto r = request(labelled, readings(labelled.scaled(2.5), doses, 0.01));
  r.unknown = TitrationUnknown::AlkalinityAndStrength;
  const auto fit = fitTitration(r);
  ASSERT_TRUE(fit);
  EXPECT_NEAR(fit->strengthFactor, 2.5, 3 * fit->strengthStandardError + 0.1);
  EXPECT_NEAR(fit->alkalinityEqPerLitre / fit->strengthFactor, trueAlkalinity / 2.5, 0.05e-3);
}

TEST(TitrationFit, WhatTheReadingsCannotTellIsNotMadeUp) {
  const auto acid = oneMeq("HNO3");
  EXPECT_EQ(fitTitration(request(acid, readings(acid, {0}, 0))).problem().code, ProblemCode::TooFewReadings);
  auto both = request(acid, readings(acid, {0, 0.4, 0.8, 1.2, 1.6}, 0.03)); // never past pH 6
  both.unknown = TitrationUnknown::AlkalinityAndStrength;
  EXPECT_EQ(fitTitration(both).problem().code, ProblemCode::NotDeterminable);
}

TEST(TitrationFit, AfterAPartOfTheDoseTheRestFollows) {
  const auto acid = oneMeq("HNO3");
  const auto fit = fitTitration(request(acid, readings(acid, {0, 1.2}, 0)));
  ASSERT_TRUE(fit);
  Titrated believed{water(fit->alkalinityEqPerLitre, fit->carbonateMolPerLitre), 0.998, {}};
  believed.conditions.temperature = Temperature::fromCelsius(20);
  Titrated truth{water(trueAlkalinity, trueCarbonate), 0.998, believed.conditions};
  const double whole = doseToReach(believed, acid, 5.8)->gramsPerLitre; // in mL, as the acid is given
  EXPECT_NEAR(withDose(truth, acid, whole)->ph, 5.8, 0.03);
}
