#include "solve/constrained_least_squares.h"
#include "solve/fit.h"
#include "solve/fit_on_equality.h"
#include "solve/least_norm.h"
#include "solve/linear_program.h"

#include <Eigen/Dense>
#include <gtest/gtest.h>
#include <limits>
#include <random>

using namespace butte::core;
using Eigen::MatrixXd;
using Eigen::RowVectorXd;
using Eigen::VectorXd;

namespace {

constexpr double infinite = std::numeric_limits<double>::infinity();

LinearLimits nonNegative(int n) {
  return LinearLimits::boundsOnly(VectorXd::Zero(n), VectorXd::Constant(n, infinite));
}

RowVectorXd row(std::initializer_list<double> values) {
  RowVectorXd out(static_cast<Eigen::Index>(values.size()));
  Eigen::Index i = 0;
  for (const double v : values)
    out[i++] = v;
  return out;
}

} // namespace

TEST(FeasiblePoint, FindsAPointWhereThereIsOne) {
  auto limits = nonNegative(3);
  limits.addEquality(row({1, 1, 1}), 6);
  limits.addInequality(row({1, 0, 0}), 2);
  limits.addInequality(row({0, -1, 0}), -3); // x1 >= 3
  const auto x = feasiblePoint(limits);
  ASSERT_TRUE(x);
  EXPECT_NEAR(x->sum(), 6, 1e-9);
  EXPECT_LE((*x)[0], 2 + 1e-9);
  EXPECT_GE((*x)[1], 3 - 1e-9);
}

TEST(FeasiblePoint, SaysWhereThereIsNone) {
  auto limits = nonNegative(2);
  limits.addInequality(row({1, 1}), 1);
  limits.addInequality(row({-1, 0}), -2);
  EXPECT_FALSE(feasiblePoint(limits));
}

TEST(ConstrainedFit, StopsAtTheLimitThatBinds) {
  // Nearest to (3, 3) with x + y <= 4: (2, 2).
  auto limits = nonNegative(2);
  limits.addInequality(row({1, 1}), 4);
  const auto x =
      constrainedLeastSquares(MatrixXd::Identity(2, 2), VectorXd::Constant(2, 3), limits, VectorXd::Zero(2));
  EXPECT_NEAR(x[0], 2, 1e-10);
  EXPECT_NEAR(x[1], 2, 1e-10);
}

TEST(ConstrainedFit, LeavesALimitAgainWhenThatIsBetter) {
  auto limits = nonNegative(2);
  limits.addInequality(row({1, 1}), 10);
  VectorXd start(2);
  start << 10, 0; // on the limit, far from the best
  const auto x = constrainedLeastSquares(MatrixXd::Identity(2, 2), VectorXd::Constant(2, 3), limits, start);
  EXPECT_NEAR(x[0], 3, 1e-10);
  EXPECT_NEAR(x[1], 3, 1e-10);
}

TEST(ConstrainedFit, KeepsAnEquality) {
  auto limits = nonNegative(2);
  limits.addEquality(row({1, 2}), 4);
  VectorXd start(2);
  start << 4, 0;
  const auto x = constrainedLeastSquares(MatrixXd::Identity(2, 2), VectorXd::Zero(2), limits, start);
  EXPECT_NEAR(x[0], 0.8, 1e-10); // the foot of the perpendicular
  EXPECT_NEAR(x[1], 1.6, 1e-10);
}

TEST(FitOnEquality, TheVariablePutInStaysAtABoundThatItWouldCross) {
  // x + 1.5 y = 4 nearest to (6, 0): without bounds y would be below 0.
  auto limits = nonNegative(2);
  limits.addEquality(row({1, 1.5}), 4);
  VectorXd wanted(2);
  wanted << 6, 0;
  const auto x = fitOnEquality(MatrixXd::Identity(2, 2), wanted, limits);
  ASSERT_TRUE(x);
  EXPECT_NEAR((*x)[0], 4, 1e-12);
  EXPECT_NEAR((*x)[1], 0, 1e-12);
}

TEST(FitOnEquality, SaysWhereNoPointKeepsIt) {
  auto limits = nonNegative(2);
  limits.upper.setConstant(1);
  limits.addEquality(row({1, 1}), 3);
  EXPECT_FALSE(fitOnEquality(MatrixXd::Identity(2, 2), VectorXd::Zero(2), limits));
}

TEST(FitOnEquality, ATwinOfTheVariablePutInIsNoNoise) {
  // The second brings what the first does, but weaker: once the first is put in, only rounding is left of it.
  std::mt19937 random(5);
  const auto unit = [&] { return random() / 4294967296.0; };
  for (int round = 0; round < 200; ++round) {
    MatrixXd a(4, 4);
    RowVectorXd equality(4);
    const double share = 0.2 + 0.7 * unit();
    for (int j = 0; j < 4; ++j) {
      equality[j] = j == 1 ? share * equality[0] : j == 0 ? 1 + unit() : unit() - 0.5;
      for (int i = 0; i < 4; ++i)
        a(i, j) = j == 1 ? share * a(i, 0) : unit();
    }
    auto limits = nonNegative(4);
    limits.addEquality(equality, 1 + unit());
    const VectorXd wanted = 4 * a.rowwise().sum();
    const auto x = fitOnEquality(a, wanted, limits);
    ASSERT_TRUE(x);
    const auto general = constrainedLeastSquares(a, wanted, limits, *feasiblePoint(limits));
    EXPECT_NEAR((a * *x - wanted).norm(), (a * general - wanted).norm(), 1e-9) << round;
    EXPECT_LT(x->norm(), 1e3) << round;
  }
}

TEST(FitOnEquality, RandomAnswersAreTheGeneralSearchs) {
  std::mt19937 random(23);
  const auto unit = [&] { return random() / 4294967296.0; };
  int found = 0;
  for (int round = 0; round < 300; ++round) {
    const int rows = 1 + static_cast<int>(random() % 8), n = 1 + static_cast<int>(random() % 12);
    MatrixXd a(rows, n);
    VectorXd b(rows);
    RowVectorXd equality(n);
    auto limits = nonNegative(n);
    for (int j = 0; j < n; ++j) {
      for (int i = 0; i < rows; ++i)
        a(i, j) = unit() < 0.4 ? 0 : unit();
      equality[j] = unit() < 0.5 ? 0 : 2 * unit() - 1;
      limits.lower[j] = unit() < 0.2 ? unit() : 0;
      if (unit() < 0.3) limits.upper[j] = limits.lower[j] + (unit() < 0.3 ? 0 : unit());
    }
    for (int i = 0; i < rows; ++i)
      b[i] = 3 * unit();
    limits.addEquality(equality, 2 * unit() - 1);
    const auto x = fitOnEquality(a, b, limits);
    const auto start = feasiblePoint(limits);
    ASSERT_EQ(x.has_value(), start.has_value()) << round;
    if (!x) continue;
    ++found;
    EXPECT_NEAR(equality.dot(*x), limits.equalityRhs[0], 1e-9 * (1 + x->norm())) << round;
    EXPECT_TRUE((x->array() >= limits.lower.array()).all() && (x->array() <= limits.upper.array()).all());
    const auto general = constrainedLeastSquares(a, b, limits, *start);
    EXPECT_NEAR((a * *x - b).norm(), (a * general - b).norm(), 1e-8) << round;
    const auto shortest = madeUnique(a, b, limits, *x);
    EXPECT_LT((shortest - madeUnique(a, b, limits, general)).norm(), 1e-6 * (1 + x->norm())) << round;
    EXPECT_LE(shortest.norm(), x->norm() + 1e-8) << round;
  }
  EXPECT_GT(found, 150);
}

TEST(LeastNorm, DividesEvenlyBetweenTwins) {
  MatrixXd a(1, 3);
  a << 1, 1, 1;
  VectorXd x(3);
  x << 9, 0, 0;
  const auto even = leastNormAmongEqual(a, nonNegative(3), x);
  for (int j = 0; j < 3; ++j)
    EXPECT_NEAR(even[j], 3, 1e-9);
}

TEST(LeastNorm, RespectsBoundsWhileDividing) {
  MatrixXd a(1, 3);
  a << 1, 1, 1;
  VectorXd x(3);
  x << 9, 0, 0;
  auto limits = nonNegative(3);
  limits.upper[1] = 1;
  const auto even = leastNormAmongEqual(a, limits, x);
  EXPECT_NEAR(even[0], 4, 1e-9);
  EXPECT_NEAR(even[1], 1, 1e-9);
  EXPECT_NEAR(even[2], 4, 1e-9);
}

/// Every answer keeps A x, stays in bounds, and no move along a null direction that stays in bounds is
/// shorter.
TEST(LeastNorm, RandomAnswersAreShortestAmongTheirEquals) {
  std::mt19937 random(11);
  const auto unit = [&] { return random() / 4294967296.0; };
  for (int round = 0; round < 200; ++round) {
    const int rows = 1 + static_cast<int>(random() % 6), n = rows + 1 + static_cast<int>(random() % 8);
    MatrixXd a(rows, n);
    for (int i = 0; i < rows; ++i)
      for (int j = 0; j < n; ++j)
        a(i, j) = unit() < 0.4 ? 0 : unit();
    VectorXd x(n);
    auto limits = nonNegative(n);
    for (int j = 0; j < n; ++j) {
      x[j] = unit() < 0.3 ? 0 : 3 * unit();
      if (unit() < 0.3) limits.upper[j] = x[j] + unit();
    }
    const auto shortest = leastNormAmongEqual(a, limits, x);
    EXPECT_LT((a * shortest - a * x).norm(), 1e-8 * (1 + (a * x).norm()));
    EXPECT_LE(shortest.norm(), x.norm() + 1e-9);
    const MatrixXd null = a.fullPivLu().kernel();
    for (int trial = 0; trial < 20; ++trial) {
      VectorXd direction = VectorXd::Zero(n);
      for (int k = 0; k < null.cols(); ++k)
        direction += (unit() - 0.5) * null.col(k);
      const VectorXd moved = shortest + 0.01 * direction;
      const bool inside =
          (moved.array() >= limits.lower.array()).all() && (moved.array() <= limits.upper.array()).all();
      if (inside) {
        EXPECT_GE(moved.norm(), shortest.norm() - 1e-9);
      }
    }
  }
}

TEST(LinearProgram, FindsTheCheapestCorner) {
  auto limits = nonNegative(2);
  limits.addInequality(row({-1, -1}), -2); // together at least 2
  limits.addInequality(row({1, 0}), 1.5);
  VectorXd cost(2);
  cost << 1, 3;
  const auto x = linearProgram(cost, limits);
  ASSERT_TRUE(x);
  EXPECT_DOUBLE_EQ((*x)[0], 1.5);
  EXPECT_DOUBLE_EQ((*x)[1], 0.5);
}

TEST(LinearProgram, SaysWhenThereIsNoAnswer) {
  auto limits = nonNegative(1);
  limits.addInequality(row({1}), 1);
  limits.addInequality(row({-1}), -2);
  EXPECT_FALSE(linearProgram(VectorXd::Ones(1), limits));
}

TEST(LinearProgram, AnEdgeMetExactlyCountsAsInside) {
  auto limits = nonNegative(1);
  limits.addInequality(row({0.1}), 0.3);
  limits.addInequality(row({-0.1}), -0.3);
  const auto x = linearProgram(VectorXd::Ones(1), limits);
  ASSERT_TRUE(x);
  EXPECT_NEAR((*x)[0], 3, 1e-12);
}
