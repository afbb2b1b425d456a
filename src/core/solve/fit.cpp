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

/// The variables that can move without changing the fit to first order are worth a least-norm pass only when
/// their columns depend on each other; mostly they don't.
bool mayBeAmbiguous(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits, const VectorXd& x) {
  const VectorXd gradient = a.transpose() * (a * x - b);
  const double tolerance = 1e-9 * (b.norm() + (a * x - b).norm());
  std::vector<Index> open;
  for (Index j = 0; j < x.size(); ++j) {
    if (limits.upper[j] <= limits.lower[j]) continue;
    const bool inside = x[j] > limits.lower[j] && x[j] < limits.upper[j];
    if (inside || std::abs(gradient[j]) <= tolerance * a.col(j).norm()) open.push_back(j);
  }
  if (open.empty()) return false;
  MatrixXd columns(a.rows(), static_cast<Index>(open.size()));
  for (std::size_t i = 0; i < open.size(); ++i) {
    const double norm = a.col(open[i]).norm();
    columns.col(static_cast<Index>(i)) =
        norm > 0 ? VectorXd(a.col(open[i]) / norm) : VectorXd(a.col(open[i]));
  }
  Eigen::ColPivHouseholderQR<MatrixXd> qr(columns);
  qr.setThreshold(1e-10);
  return qr.rank() < columns.cols();
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

std::optional<VectorXd> fitWithin(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits) {
  VectorXd x;
  bool general = limits.equality.rows() > 0;
  if (!general) {
    x = boundedLeastSquares(a, b, limits.lower, limits.upper);
    general = !withinInequalities(limits, x);
  }
  if (general) {
    auto start = nearStart(a, b, limits);
    if (!start) start = feasiblePoint(limits);
    if (!start) return std::nullopt;
    x = constrainedLeastSquares(a, b, limits, *start);
  }
  const bool plain = limits.equality.rows() + limits.inequality.rows() == 0;
  if (plain && !mayBeAmbiguous(a, b, limits, x)) return x;
  return leastNormAmongEqual(a, limits, x);
}

} // namespace butte::core
