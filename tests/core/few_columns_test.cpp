#include "solve/bounded_least_squares.h"
#include "solve/fit_with_few.h"

#include <bit>
#include <gtest/gtest.h>
#include <limits>
#include <random>

using namespace butte::core;
using Eigen::MatrixXd;
using Eigen::VectorXd;

namespace {

constexpr double infinite = std::numeric_limits<double>::infinity();

struct Case {
  MatrixXd a;
  VectorXd b, lower, upper;
};

/// Like salts: few elements in each, all of them positive.
Case randomCase(std::mt19937& random, int rows, int columns) {
  std::uniform_real_distribution<double> number(0, 1);
  Case out{MatrixXd::Zero(rows, columns), VectorXd(rows), VectorXd::Zero(columns),
           VectorXd::Constant(columns, infinite)};
  for (int j = 0; j < columns; ++j) {
    for (int i = 0; i < rows; ++i) {
      if (number(random) < 0.4) out.a(i, j) = number(random);
    }
    if (number(random) < 0.3) out.upper[j] = number(random);
  }
  for (int i = 0; i < rows; ++i)
    out.b[i] = number(random);
  return out;
}

double residual(const Case& c, const VectorXd& upper) {
  return (c.a * boundedLeastSquares(c.a, c.b, c.lower, upper) - c.b).squaredNorm();
}

/// Every choice of columns tried: slow and certain.
double bestOfAllChoices(const Case& c, int most) {
  const auto columns = static_cast<unsigned>(c.a.cols());
  double best = infinite;
  for (unsigned choice = 0; choice < 1u << columns; ++choice) {
    if (std::popcount(choice) > most) continue;
    VectorXd upper = c.upper;
    for (unsigned j = 0; j < columns; ++j) {
      if (!(choice >> j & 1u)) upper[j] = 0;
    }
    best = std::min(best, residual(c, upper));
  }
  return best;
}

} // namespace

TEST(FewColumns, AreTheBestOfAllChoices) {
  std::mt19937 random(5);
  for (int n = 0; n < 40; ++n) {
    const auto c = randomCase(random, 5, 9);
    const int most = 1 + n % 4;
    const auto found = fitWithFew(c.a, c.b, c.lower, c.upper, most);
    EXPECT_TRUE(found.proven);
    VectorXd upper = c.upper;
    int used = 0;
    for (Eigen::Index j = 0; j < upper.size(); ++j) {
      used += found.used[static_cast<std::size_t>(j)];
      if (!found.used[static_cast<std::size_t>(j)]) upper[j] = 0;
    }
    EXPECT_LE(used, most);
    EXPECT_NEAR(residual(c, upper), bestOfAllChoices(c, most), 1e-9) << "case " << n;
  }
}

TEST(FewColumns, WhatIsHeldCounts) {
  std::mt19937 random(6);
  auto c = randomCase(random, 4, 7);
  c.lower[3] = 0.05;
  c.upper[3] = 0.05;
  const auto found = fitWithFew(c.a, c.b, c.lower, c.upper, 2);
  EXPECT_TRUE(found.used[3]);
  EXPECT_LE(std::count(found.used.begin(), found.used.end(), true), 2);
}

TEST(BoundedFit, FromAnyGuessItIsTheSameFit) {
  std::mt19937 random(7);
  std::uniform_real_distribution<double> number(0, 2);
  for (int n = 0; n < 200; ++n) {
    const auto c = randomCase(random, 6, 10);
    const BoundedFit fit(c.a, c.b);
    VectorXd guess(10);
    for (auto& g : guess)
      g = number(random) < 1 ? 0 : number(random);
    const double direct = fit.residualSquared(fit.within(c.lower, c.upper));
    EXPECT_NEAR(fit.residualSquared(fit.near(guess, c.lower, c.upper)), direct, 1e-10) << "case " << n;
  }
}

TEST(BoundedFit, KeepsItsBoundsFromAGuessOutsideThem) {
  std::mt19937 random(8);
  const auto c = randomCase(random, 6, 10);
  const BoundedFit fit(c.a, c.b);
  const VectorXd x = fit.near(VectorXd::Constant(10, 50), c.lower, c.upper);
  for (Eigen::Index j = 0; j < x.size(); ++j) {
    EXPECT_GE(x[j], c.lower[j]);
    EXPECT_LE(x[j], c.upper[j]);
  }
}
