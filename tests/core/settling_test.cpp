/// The parts that settle a solution: the small Cholesky factor, the kinds of activity, the water's share, and
/// starts taken from other solutions.
#include "solution/activity.h"
#include "solution/equilibrium.h"
#include "solution/scaled_cholesky.h"

#include <cmath>
#include <gmock/gmock.h>
#include <random>

using namespace butte::core;
using C = Component;

namespace {

using Factor = ScaledCholesky<20>;

/// A positive definite matrix whose rows stand up to twelve orders of magnitude apart, as trace elements
/// beside main ones.
Eigen::MatrixXd unevenMatrix(int size, std::mt19937& random) {
  std::uniform_real_distribution<double> any(-1, 1);
  Eigen::MatrixXd root(size, size);
  for (int i = 0; i < size; ++i) {
    for (int j = 0; j < size; ++j)
      root(i, j) = any(random) + (i == j ? 2 : 0);
  }
  Factor::Vector scale(size);
  for (int i = 0; i < size; ++i)
    scale[i] = std::pow(10, 3 * any(random));
  return scale.asDiagonal() * root * root.transpose() * scale.asDiagonal();
}

Solutes feed() {
  Solutes s;
  s.of(C::Ca) = 0.004;
  s.of(C::NO3) = 0.014;
  s.of(C::K) = 0.007;
  s.of(C::Mg) = 0.0015;
  s.of(C::SO4) = 0.0018;
  s.of(C::Phosphate) = 0.001;
  s.of(C::Carbonate) = 0.0006;
  s.of(C::Zn) = 5e-6;
  s.of(C::Boron) = 3e-5;
  s.alkalinityEq = 0.0004;
  return s;
}

} // namespace

TEST(ScaledCholesky, FindsWhatTheMatrixWasAppliedTo) {
  std::mt19937 random(11);
  std::uniform_real_distribution<double> any(-1, 1);
  for (int size = 1; size <= 20; ++size) {
    const auto matrix = unevenMatrix(size, random);
    Factor::Vector put(size);
    for (int i = 0; i < size; ++i)
      put[i] = any(random) / std::sqrt(matrix(i, i));
    Factor::Matrix lower = Factor::Matrix::Constant(std::nan("")); // nothing above or beyond is read
    lower.topLeftCorner(size, size).triangularView<Eigen::Lower>() = matrix.triangularView<Eigen::Lower>();
    const Factor factor(lower, size);
    ASSERT_TRUE(factor.good());
    const Factor::Vector side = matrix * put;
    const auto found = factor.solve(side);
    for (int i = 0; i < size; ++i)
      EXPECT_NEAR(found[i] * std::sqrt(matrix(i, i)), put[i] * std::sqrt(matrix(i, i)), 1e-8)
          << size << ": " << i;
    // Three at once are the same as one after the other.
    const Factor::Vector twice = 2 * side, turned = side.reverse();
    const auto three = factor.solve({&side, &twice, &turned});
    const auto alone = factor.solve(turned);
    for (int i = 0; i < size; ++i) {
      EXPECT_NEAR(three[0][i], found[i], 1e-9 * std::abs(found[i]));
      EXPECT_NEAR(three[1][i], 2 * found[i], 1e-9 * std::abs(found[i]));
      EXPECT_NEAR(three[2][i], alone[i], 1e-9 * std::abs(alone[i]));
    }
  }
}

TEST(ScaledCholesky, RefusesWhatIsNotPositive) {
  Factor::Matrix matrix = Factor::Matrix::Zero();
  matrix.topLeftCorner(2, 2) << 1, 2, 2, 1;
  EXPECT_FALSE(Factor(matrix, 2).good());
}

TEST(ActivityKinds, EverySpeciesHasItsOwnFigures) {
  const auto& data = EquilibriumData::instance();
  EXPECT_LT(data.activityKinds().size(), data.species().size());
  for (const auto& species : data.species()) {
    const auto& kind = data.activityKinds()[species.activityKind];
    EXPECT_EQ(kind.charge, species.charge) << species.name;
    EXPECT_EQ(kind.sizeAngstrom, species.sizeAngstrom) << species.name;
    EXPECT_EQ(kind.linearTerm, species.linearTerm) << species.name;
  }
}

TEST(Settling, TheWatersActivityIsThatOfTheSolutesFound) {
  for (const double times : {1.0, 20.0, 200.0}) {
    const auto settled = equilibrate(feed().scaled(times), {});
    ASSERT_TRUE(settled);
    double solutes = 0;
    for (const double molality : settled->molality)
      solutes += molality;
    EXPECT_NEAR(settled->waterActivity, 1 - 0.017 * solutes, 1e-10) << times; // PHREEQC's rule, from memory
  }
}

TEST(Settling, AStartFromAnyStrengthGivesTheSameAnswerInFewerSteps) {
  const auto cold = equilibrate(feed(), {});
  ASSERT_TRUE(cold);
  int sooner = 0;
  for (const double times : {0.01, 0.3, 0.9, 1.0, 1.1, 3.0, 100.0}) {
    const auto other = equilibrate(feed().scaled(times), {});
    ASSERT_TRUE(other);
    EquilibriumConditions conditions;
    conditions.start = &*other;
    const auto warm = equilibrate(feed(), conditions);
    ASSERT_TRUE(warm);
    EXPECT_NEAR(warm->ph, cold->ph, 1e-9) << times;
    EXPECT_NEAR(warm->ionicStrength, cold->ionicStrength, 1e-11) << times;
    for (std::size_t i = 0; i < cold->molality.size(); ++i)
      EXPECT_NEAR(warm->molality[i], cold->molality[i], 1e-9 * cold->molality[i]) << times << ": " << i;
    sooner += warm->iterations < cold->iterations;
  }
  EXPECT_GE(sooner, 3);
}

TEST(Settling, AStartWithoutOneOfTheIonsIsNotTaken) {
  auto poorer = feed();
  poorer.of(C::Zn) = 0;
  const auto other = equilibrate(poorer, {});
  EquilibriumConditions conditions;
  conditions.start = &*other;
  const auto warm = equilibrate(feed(), conditions), cold = equilibrate(feed(), {});
  ASSERT_TRUE(warm && cold);
  EXPECT_EQ(warm->ph, cold->ph);
  EXPECT_EQ(warm->molality, cold->molality);
}

TEST(ActivityModel, BothAtOnceAreTheTwoByThemselves) {
  const ActivityModel model(18);
  for (const double strength : {0.0, 1e-9, 0.01, 1.0, 6.0, 12.0}) {
    for (const int charge : {-3, -2, -1, 0, 1, 2}) {
      const auto both = model.at(strength).coefficient(charge, 4.5, 0.1);
      EXPECT_EQ(both.lnGamma, model.lnGamma(charge, 4.5, 0.1, strength));
      EXPECT_EQ(both.slope, model.lnGammaSlope(charge, 4.5, 0.1, strength));
      EXPECT_TRUE(std::isfinite(both.slope));
    }
  }
  EXPECT_EQ(model.at(0).coefficient(2, 4.5, 0.1).lnGamma, 0);
}

TEST(Settling, SolidsWithHydrateWaterStandAtTheirSolubilityInStrongSolutions) {
  const auto& data = EquilibriumData::instance();
  const auto gypsum = *data.solidIndex("gypsum");
  EquilibriumConditions conditions;
  conditions.solids = {
      {data.solids()[gypsum].dissolved, data.at(conditions.temperature).lnSolubility[gypsum]}};
  for (const double salt : {0.0, 0.5, 2.0}) {
    Solutes totals;
    totals.of(C::Ca) = totals.of(C::SO4) = 0.2;
    totals.of(C::Na) = totals.of(C::NO3) = salt;
    const auto settled = equilibrate(totals, conditions);
    ASSERT_TRUE(settled) << salt;
    EXPECT_GT(settled->solidMol[0], 0.05);
    EXPECT_NEAR(settled->lnIonProduct(conditions.solids[0].dissolved),
                conditions.solids[0].lnSolubilityProduct, 1e-9)
        << salt;
  }
}
