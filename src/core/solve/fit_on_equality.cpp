#include "solve/fit_on_equality.h"

#include "solve/bounded_least_squares.h"

#include <cmath>

namespace butte::core {
namespace {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

constexpr double kept = 1e-9;    // of the equality's own size
constexpr double noPull = 1e-12; // of a column before the carrier was put in

/// Of the variables that can move, the one that the equality feels most: the others are put in with factors
/// of 1 at most.
Index carrierOf(const Eigen::RowVectorXd& row, const VectorXd& lower, const VectorXd& upper) {
  Index carrier = -1;
  for (Index j = 0; j < row.size(); ++j) {
    if (row[j] == 0 || upper[j] <= lower[j]) continue;
    if (carrier < 0 || std::abs(row[j]) > std::abs(row[carrier])) carrier = j;
  }
  return carrier;
}

/// The best fit with this variable put in from the equality, whatever bounds it has itself.
VectorXd fitWithout(Index carrier, const MatrixXd& a, const VectorXd& b, const LinearLimits& limits) {
  const Eigen::RowVectorXd row = limits.equality.row(0) / limits.equality(0, carrier);
  const double rhs = limits.equalityRhs[0] / limits.equality(0, carrier);
  MatrixXd rest = a - a.col(carrier) * row;
  const Eigen::RowVectorXd sizes = a.colwise().norm() + a.col(carrier).norm() * row.cwiseAbs();
  for (Index j = 0; j < row.size(); ++j) {
    // What moves nothing but the carrier (two products that bring the same) leaves only its rounding.
    if (j == carrier || rest.col(j).norm() <= noPull * sizes[j]) rest.col(j).setZero();
  }
  auto lower = limits.lower, upper = limits.upper;
  lower[carrier] = upper[carrier] = 0;
  VectorXd x = boundedLeastSquares(rest, b - rhs * a.col(carrier), lower, upper);
  x[carrier] = rhs - row.dot(x);
  return x;
}

} // namespace

std::optional<VectorXd> fitOnEquality(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits) {
  const Eigen::RowVectorXd row = limits.equality.row(0);
  LinearLimits left = limits;
  for (Index round = 0; round < row.size(); ++round) {
    const Index carrier = carrierOf(row, left.lower, left.upper);
    if (carrier < 0) break;
    VectorXd x = fitWithout(carrier, a, b, left);
    const double low = left.lower[carrier], high = left.upper[carrier];
    if (x[carrier] >= low && x[carrier] <= high) return x;
    left.lower[carrier] = left.upper[carrier] = x[carrier] < low ? low : high;
  }
  VectorXd x = boundedLeastSquares(a, b, left.lower, left.upper);
  const double size = row.cwiseAbs().dot(x.cwiseAbs()) + std::abs(limits.equalityRhs[0]);
  return std::abs(row.dot(x) - limits.equalityRhs[0]) <= kept * size ? std::optional(x) : std::nullopt;
}

} // namespace butte::core
