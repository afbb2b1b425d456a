#include "solve/fit.h"

#include "algebra/factors.h"
#include "solve/bounded_least_squares.h"
#include "solve/fit_on_equality.h"
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

/// How the fit pulls at each column, and how much of that is worth calling a pull for each unit of error.
struct Pull {
  VectorXd gradient, size;
};

/// The equality allowed for; nothing where no column inside its bounds tells the equality's price.
std::optional<Pull> pullAt(const MatrixXd& a, const VectorXd& residual, const LinearLimits& limits,
                           const VectorXd& x) {
  Pull pull{a.transpose() * residual, a.colwise().norm()};
  if (limits.equality.rows() == 0) return pull;
  const Eigen::RowVectorXd row = limits.equality.row(0);
  Index carrier = -1;
  for (Index j = 0; j < x.size(); ++j) {
    const bool inside = x[j] > limits.lower[j] && x[j] < limits.upper[j];
    if (inside && row[j] != 0 && (carrier < 0 || std::abs(row[j]) > std::abs(row[carrier]))) carrier = j;
  }
  if (carrier < 0) return std::nullopt;
  const VectorXd through = row.transpose() / row[carrier]; // a unit of each moves the carrier by this
  pull.gradient -= pull.gradient[carrier] * through;
  pull.size += pull.size[carrier] * through.cwiseAbs();
  return pull;
}

/// The columns that may differ between equally good fits: those at a bound that the fit pushes against stay
/// there in all of them. Nothing where x is no best fit within bounds and on the equality, since another
/// limit holds it.
std::optional<std::vector<Index>> openColumns(const MatrixXd& a, const VectorXd& b,
                                              const LinearLimits& limits, const VectorXd& x) {
  const VectorXd residual = a * x - b;
  const auto pull = pullAt(a, residual, limits, x);
  if (!pull) return std::nullopt;
  const double tolerance = 1e-9 * (b.norm() + residual.norm());
  std::vector<Index> open;
  for (Index j = 0; j < x.size(); ++j) {
    if (limits.upper[j] <= limits.lower[j]) continue;
    const double least = tolerance * pull->size[j];
    const bool inside = x[j] > limits.lower[j] && x[j] < limits.upper[j];
    const double inward = x[j] <= limits.lower[j] ? -pull->gradient[j] : pull->gradient[j];
    if (inside ? std::abs(inward) > least : inward > least) return std::nullopt;
    if (inward >= -least) open.push_back(j);
  }
  return open;
}

bool independent(MatrixXd columns) {
  for (Index i = 0; i < columns.cols(); ++i) {
    if (const double norm = columns.col(i).norm(); norm > 0) columns.col(i) /= norm;
  }
  return rankOf(columns, 1e-10) == columns.cols();
}

/// The open columns alone, what the others take up put in.
LinearLimits limitsOf(const std::vector<Index>& open, const LinearLimits& limits, const VectorXd& x) {
  auto part = LinearLimits::boundsOnly(limits.lower(open), limits.upper(open));
  if (limits.equality.rows() > 0)
    part.addEquality(limits.equality(0, open), limits.equality(0, open).dot(x(open)));
  return part;
}

bool atMostOneEquality(const LinearLimits& limits) {
  return limits.equality.rows() <= 1;
}

} // namespace

std::optional<VectorXd> anyBestFit(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits) {
  if (atMostOneEquality(limits)) {
    const auto x = limits.equality.rows() == 0 ? boundedLeastSquares(a, b, limits.lower, limits.upper)
                                               : fitOnEquality(a, b, limits);
    if (!x) return std::nullopt;
    if (withinInequalities(limits, *x)) return x;
  }
  const auto start = feasiblePoint(limits);
  if (!start) return std::nullopt;
  return constrainedLeastSquares(a, b, limits, *start);
}

/// Mostly there is but one.
VectorXd madeUnique(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits, VectorXd x) {
  const auto open = atMostOneEquality(limits) ? openColumns(a, b, limits, x) : std::nullopt;
  if (!open) return leastNormAmongEqual(a, limits, x);
  if (open->empty()) return x;
  MatrixXd columns(a.rows() + limits.equality.rows(), static_cast<Index>(open->size()));
  columns << a(Eigen::all, *open), limits.equality(Eigen::all, *open);
  if (independent(columns)) return x;
  if (limits.inequality.rows() > 0) return leastNormAmongEqual(a, limits, x);
  x(*open) = leastNormAmongEqual(a(Eigen::all, *open), limitsOf(*open, limits, x), x(*open));
  return x;
}

std::optional<VectorXd> fitWithin(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits) {
  const auto x = anyBestFit(a, b, limits);
  return x ? std::optional(madeUnique(a, b, limits, *x)) : std::nullopt;
}

} // namespace butte::core
