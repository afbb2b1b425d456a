#include "solve/fit.h"

#include "solve/bounded_least_squares.h"
#include "solve/least_norm.h"

#include <cmath>

namespace butte::core {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

bool withinInequalities(const LinearLimits& limits, const VectorXd& x) {
  for (Index i = 0; i < limits.inequality.rows(); ++i) {
    const double slack = 1e-12 * (limits.inequality.row(i).cwiseAbs().dot(x.cwiseAbs()) + 1);
    if (limits.inequality.row(i).dot(x) > limits.inequalityRhs[i] + slack) return false;
  }
  return true;
}

namespace {

/// The columns that may differ between equally good fits within bounds: those at a bound that the fit pushes
/// against stay there in all of them.
std::vector<Index> openColumns(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits,
                               const VectorXd& x) {
  const VectorXd residual = a * x - b;
  const VectorXd gradient = a.transpose() * residual;
  const double tolerance = 1e-9 * (b.norm() + residual.norm());
  std::vector<Index> open;
  for (Index j = 0; j < x.size(); ++j) {
    if (limits.upper[j] <= limits.lower[j]) continue;
    const bool inside = x[j] > limits.lower[j] && x[j] < limits.upper[j];
    if (inside || std::abs(gradient[j]) <= tolerance * a.col(j).norm()) open.push_back(j);
  }
  return open;
}

bool independent(MatrixXd columns) {
  for (Index i = 0; i < columns.cols(); ++i) {
    if (const double norm = columns.col(i).norm(); norm > 0) columns.col(i) /= norm;
  }
  Eigen::ColPivHouseholderQR<MatrixXd> qr(columns);
  qr.setThreshold(1e-10);
  return qr.rank() == columns.cols();
}

/// Among the equal fits within bounds the one with the least sum of squares; mostly there is but one.
VectorXd leastNormWithinBounds(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits, VectorXd x) {
  const auto open = openColumns(a, b, limits, x);
  const auto count = static_cast<Index>(open.size());
  MatrixXd columns(a.rows(), count);
  VectorXd lower(count), upper(count), part(count);
  for (Index i = 0; i < count; ++i) {
    const auto j = open[static_cast<std::size_t>(i)];
    columns.col(i) = a.col(j);
    lower[i] = limits.lower[j];
    upper[i] = limits.upper[j];
    part[i] = x[j];
  }
  if (count == 0 || independent(columns)) return x;
  part = leastNormAmongEqual(columns, LinearLimits::boundsOnly(lower, upper), part);
  for (Index i = 0; i < count; ++i)
    x[open[static_cast<std::size_t>(i)]] = part[i];
  return x;
}

/// A start for the general search when the acid's alkalinity row is the only equality: the bounded fit with
/// that row weighted heavily, then the row made exact by the product that carries most of it.
std::optional<VectorXd> nearStart(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits) {
  if (limits.equality.rows() != 1) return std::nullopt;
  const Eigen::RowVectorXd row = limits.equality.row(0);
  const double weight = 1e4 * a.norm() / row.norm();
  MatrixXd wide(a.rows() + 1, a.cols());
  wide << a, weight * row;
  VectorXd rhs(b.size() + 1);
  rhs << b, weight * limits.equalityRhs[0];
  VectorXd x = boundedLeastSquares(wide, rhs, limits.lower, limits.upper);
  Index carrier = -1;
  for (Index j = 0; j < x.size(); ++j) {
    const bool inside = x[j] > limits.lower[j] && x[j] < limits.upper[j];
    if (inside && (carrier < 0 || std::abs(row[j]) > std::abs(row[carrier]))) carrier = j;
  }
  if (carrier < 0 || row[carrier] == 0) return std::nullopt;
  x[carrier] += (limits.equalityRhs[0] - row.dot(x)) / row[carrier];
  const bool kept = x[carrier] >= limits.lower[carrier] && x[carrier] <= limits.upper[carrier];
  return kept && withinInequalities(limits, x) ? std::optional(x) : std::nullopt;
}

} // namespace

std::optional<VectorXd> anyBestFit(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits) {
  if (limits.equality.rows() == 0) {
    VectorXd x = boundedLeastSquares(a, b, limits.lower, limits.upper);
    if (withinInequalities(limits, x)) return x;
  }
  auto start = nearStart(a, b, limits);
  if (!start) start = feasiblePoint(limits);
  if (!start) return std::nullopt;
  return constrainedLeastSquares(a, b, limits, *start);
}

VectorXd madeUnique(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits, const VectorXd& x) {
  if (limits.equality.rows() + limits.inequality.rows() == 0) return leastNormWithinBounds(a, b, limits, x);
  return leastNormAmongEqual(a, limits, x);
}

std::optional<VectorXd> fitWithin(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits) {
  const auto x = anyBestFit(a, b, limits);
  return x ? std::optional(madeUnique(a, b, limits, *x)) : std::nullopt;
}

} // namespace butte::core
