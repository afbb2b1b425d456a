#include "solve/column_factor.h"

#include <Eigen/Dense>
#include <gtest/gtest.h>
#include <random>

using namespace butte::core;
using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

namespace {

MatrixXd columnsOf(const MatrixXd& a, const std::vector<Index>& columns) {
  MatrixXd out(a.rows(), static_cast<Index>(columns.size()));
  for (std::size_t i = 0; i < columns.size(); ++i)
    out.col(static_cast<Index>(i)) = a.col(columns[i]);
  return out;
}

} // namespace

/// Columns come and go; the answer is ever that of orthogonal factors made anew.
TEST(ColumnFactor, AnswersAsIfMadeAnewWhateverWasTakenBefore) {
  std::mt19937 random(3);
  const auto unit = [&] { return random() / 4294967296.0; };
  MatrixXd a(9, 14);
  for (Index j = 0; j < a.cols(); ++j) {
    const double size = std::pow(10, 6 * unit() - 3);
    for (Index i = 0; i < a.rows(); ++i)
      a(i, j) = size * (unit() - 0.3);
  }
  VectorXd b(9);
  for (Index i = 0; i < b.size(); ++i)
    b[i] = unit();
  ColumnFactor factor(a);
  std::vector<Index> columns;
  for (int round = 0; round < 200; ++round) {
    const Index next = static_cast<Index>(random() % 14);
    if (const auto it = std::find(columns.begin(), columns.end(), next); it != columns.end())
      columns.erase(it);
    else if (columns.size() < 8)
      columns.push_back(next);
    ASSERT_TRUE(factor.take(columns));
    const VectorXd found = factor.nearest(b);
    const VectorXd judge = columnsOf(a, columns).colPivHouseholderQr().solve(b);
    for (Index i = 0; i < judge.size(); ++i)
      EXPECT_NEAR(found[i], judge[i], 1e-7 * (std::abs(judge[i]) + judge.norm() * 1e-3)) << round;
  }
}

TEST(ColumnFactor, RefusesWhatDependsOnTheOthers) {
  MatrixXd a(3, 5);
  a << 1, 0, 2, 0, 0, 0, 1, 3, 0, 0, 0, 0, 0, 0, 1;
  ColumnFactor factor(a);
  EXPECT_TRUE(factor.take({0, 1}));
  EXPECT_FALSE(factor.take({0, 1, 2})) << "2 and 3 of the first two";
  EXPECT_FALSE(factor.take({0, 3})) << "an empty column";
  EXPECT_TRUE(factor.take({0, 2, 4}));
  EXPECT_FALSE(factor.take({0, 2, 4, 1})) << "more columns than rows";
  VectorXd b(3);
  b << 5, 6, 7;
  ASSERT_TRUE(factor.take({0, 2, 4})) << "a refusal spoils nothing";
  const VectorXd z = factor.nearest(b);
  EXPECT_NEAR(z[0], 1, 1e-12); // 5 - 2 times 2
  EXPECT_NEAR(z[1], 2, 1e-12); // 6 / 3
  EXPECT_NEAR(z[2], 7, 1e-12);
}

TEST(ColumnFactor, OfNoColumnsIsNothing) {
  const MatrixXd a = MatrixXd::Ones(2, 2);
  ColumnFactor factor(a);
  EXPECT_TRUE(factor.take({}));
  EXPECT_EQ(factor.nearest(VectorXd::Ones(2)).size(), 0);
}
