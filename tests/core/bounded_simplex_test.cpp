#include "solve/bounded_simplex.h"

#include "solve/limit_search.h"
#include "solve/linear_program.h"

#include <gtest/gtest.h>
#include <limits>
#include <random>

using namespace butte::core;
using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::RowVectorXd;
using Eigen::VectorXd;

namespace {

constexpr double infinite = std::numeric_limits<double>::infinity();

/// A program of the sizes that a formula has, and a point that keeps it.
struct Program {
  MatrixXd rows;
  std::vector<BoundedSimplex::Ends> ends;
  VectorXd lower, upper, inside;
  RowVectorXd direction;

  BoundedSimplex simplex() const { return {rows, ends, lower, upper, inside}; }

  LinearLimits limits() const {
    auto limits = LinearLimits::boundsOnly(lower, upper);
    for (Index i = 0; i < rows.rows(); ++i) {
      const auto [least, most] = ends[static_cast<std::size_t>(i)];
      if (least == most) limits.addEquality(rows.row(i), most);
      if (least == most) continue;
      if (std::isfinite(most)) limits.addInequality(rows.row(i), most);
      if (std::isfinite(least)) limits.addInequality(-rows.row(i), -least);
    }
    return limits;
  }
};

class Maker {
public:
  explicit Maker(unsigned seed) : m_random(seed) {}
  double unit() { return m_random() / 4294967296.0; }

  Program make() {
    const int m = 1 + static_cast<int>(m_random() % 18), n = 1 + static_cast<int>(m_random() % 40);
    Program p{MatrixXd::Zero(m, n), {}, VectorXd::Zero(n), VectorXd(n), VectorXd(n), RowVectorXd(n)};
    for (int j = 0; j < n; ++j) {
      p.upper[j] = unit() < 0.6 ? infinite : 3 * unit();
      p.inside[j] = unit() < 0.6 ? 0 : std::min(p.upper[j], 2 * unit());
      p.direction[j] = unit() < 0.3 ? 0 : unit() - 0.3;
      for (int i = 0; i < m; ++i)
        p.rows(i, j) = unit() < 0.7 ? 0 : std::pow(10, 3 * unit() - 1.5) * (unit() < 0.1 ? -1 : 1);
    }
    const VectorXd at = p.rows * p.inside;
    for (int i = 0; i < m; ++i) {
      const double room = std::abs(at[i]) * unit() + (unit() < 0.2 ? 0 : unit());
      const bool equal = unit() < 0.05;
      p.ends.push_back({equal          ? at[i]
                        : unit() < 0.5 ? -infinite
                                       : at[i] - room,
                        equal          ? at[i]
                        : unit() < 0.3 ? infinite
                                       : at[i] + room * unit()});
    }
    return p;
  }

private:
  std::mt19937 m_random;
};

} // namespace

TEST(BoundedSimplex, StopsAtTheEndOfARow) {
  // Least -x - 2y with x + y <= 4 and y <= 3, from (1, 1): (1, 3).
  MatrixXd rows(1, 2);
  rows << 1, 1;
  VectorXd upper(2);
  upper << infinite, 3;
  BoundedSimplex simplex(rows, {{-infinite, 4}}, VectorXd::Zero(2), upper, VectorXd::Ones(2));
  RowVectorXd direction(2);
  direction << -1, -2;
  ASSERT_EQ(simplex.least(direction), BoundedSimplex::Outcome::Optimal);
  EXPECT_NEAR(simplex.value(), -7, 1e-12);
  EXPECT_NEAR(simplex.priceOfRow(0), -1, 1e-12); // a fifth unit in the row: one more of x
  EXPECT_NEAR(simplex.priceOfVariable(0), 0, 1e-12);
  EXPECT_NEAR(simplex.priceOfVariable(1), -1, 1e-12);
}

TEST(BoundedSimplex, SaysWhereNothingHoldsIt) {
  MatrixXd rows(1, 2);
  rows << 1, -1;
  BoundedSimplex simplex(rows, {{-infinite, 1}}, VectorXd::Zero(2), VectorXd::Constant(2, infinite),
                         VectorXd::Zero(2));
  EXPECT_EQ(simplex.least(RowVectorXd::Constant(2, -1)), BoundedSimplex::Outcome::Unbounded);
}

TEST(BoundedSimplex, ForgetsARowsOldEnd) {
  MatrixXd rows(1, 1);
  rows << 2;
  BoundedSimplex simplex(rows, {{0, 4}}, VectorXd::Zero(1), VectorXd::Constant(1, 10), VectorXd::Ones(1));
  const RowVectorXd up = RowVectorXd::Constant(1, -1);
  ASSERT_EQ(simplex.least(up), BoundedSimplex::Outcome::Optimal);
  EXPECT_NEAR(simplex.value(), -2, 1e-12);
  simplex.setRowEnds(0, {0, infinite});
  ASSERT_EQ(simplex.least(up), BoundedSimplex::Outcome::Optimal);
  EXPECT_NEAR(simplex.value(), -10, 1e-12);
  simplex.setRowEnds(0, {0, 4});
  ASSERT_EQ(simplex.least(up), BoundedSimplex::Outcome::Optimal);
  EXPECT_NEAR(simplex.value(), -2, 1e-12);
}

TEST(BoundedSimplex, DoubtsAStartOutsideTheRows) {
  BoundedSimplex simplex(MatrixXd::Ones(1, 1), {{0, 1}}, VectorXd::Zero(1), VectorXd::Constant(1, infinite),
                         VectorXd::Constant(1, 2));
  EXPECT_EQ(simplex.least(RowVectorXd::Ones(1)), BoundedSimplex::Outcome::InDoubt);
}

/// The library's simplex, with exact arithmetic where doubles leave a doubt, is the judge.
TEST(BoundedSimplex, RandomAnswersAreTheLibrarys) {
  Maker maker(31);
  int optimal = 0, unbounded = 0, doubtful = 0;
  for (int round = 0; round < 600; ++round) {
    const auto p = maker.make();
    auto simplex = p.simplex();
    const auto outcome = simplex.least(p.direction);
    const auto judge = linearProgram(p.direction.transpose(), p.limits());
    optimal += outcome == BoundedSimplex::Outcome::Optimal;
    unbounded += outcome == BoundedSimplex::Outcome::Unbounded;
    doubtful += outcome == BoundedSimplex::Outcome::InDoubt;
    if (outcome == BoundedSimplex::Outcome::InDoubt) continue;
    ASSERT_EQ(outcome == BoundedSimplex::Outcome::Optimal, judge.has_value()) << round;
    if (!judge) continue;
    const double value = p.direction.dot(*judge);
    EXPECT_NEAR(simplex.value(), value, 1e-7 * (1 + std::abs(value))) << round;
  }
  EXPECT_GT(optimal, 200);
  EXPECT_GT(unbounded, 50);
  EXPECT_LT(doubtful, 6);
}

/// A price is what its name says: the value falls by it when an end gives way by a unit, if only by a little.
TEST(BoundedSimplex, PricesForetellWhatGivingWayBrings) {
  Maker maker(77);
  int priced = 0, exact = 0;
  for (int round = 0; round < 200; ++round) {
    const auto p = maker.make();
    auto simplex = p.simplex();
    if (simplex.least(p.direction) != BoundedSimplex::Outcome::Optimal) continue;
    for (Index i = 0; i < p.rows.rows(); ++i) {
      auto given = p;
      const double price = simplex.priceOfRow(i);
      auto& [least, most] = given.ends[static_cast<std::size_t>(i)];
      if (least == most) continue;
      const double step = 1e-4;
      if (price == 0) {
        least = -infinite;
        most = infinite;
      } else {
        (price < 0 ? most : least) += price < 0 ? step : -step;
      }
      auto relaxed = given.simplex();
      ASSERT_EQ(relaxed.least(p.direction), BoundedSimplex::Outcome::Optimal) << round;
      // Never more than foretold (the value is convex in the ends); for a row without a price nothing at all.
      const double gained = simplex.value() - relaxed.value(), foretold = std::abs(price) * step;
      EXPECT_LE(gained, foretold + 1e-8 * (1 + std::abs(simplex.value()))) << round << " row " << i;
      priced += price != 0;
      exact += price != 0 && gained > 0.999 * foretold - 1e-9;
    }
  }
  EXPECT_GT(priced, 100);
  EXPECT_GT(exact, 0.9 * priced); // the others stand in a corner where more than one price is true
}

TEST(LimitSearch, AStartOutsideIsSettledByTheLibrary) {
  auto limits = LinearLimits::boundsOnly(VectorXd::Zero(2), VectorXd::Constant(2, infinite));
  limits.addInequality(RowVectorXd::Ones(2), 4);
  LimitSearch search(limits, VectorXd::Constant(2, 9));
  RowVectorXd direction(2);
  direction << -1, -3;
  const auto least = search.least(direction);
  ASSERT_TRUE(least);
  EXPECT_NEAR(*least, -12, 1e-9);
  EXPECT_NEAR(search.reliefOfInequality(0), 3, 1e-9);
  EXPECT_NEAR(search.reliefOfBound(0), -2, 1e-9); // its lower bound holds the first at zero
}
